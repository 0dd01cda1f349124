<script lang="ts">
  import { LINK_KINDS, LINK_LABELS, type LinkKind } from '$lib/core/passages';
  import type { Section } from '$lib/server/projects';
  import type { Passage, PassageLink } from '$lib/server/passages';
  import type { TaskItem } from '$lib/server/tasks';
  import { call } from '../frame/client';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done, doneWithUndo } from '../frame/toasts.svelte';
  import { Button, Checkbox, Select } from '../kit';
  import TaskList from './TaskList.svelte';

  interface Props {
    passage: Passage;
    sections: Section[];
    placed: string[];
    tasks: TaskItem[];
    links: PassageLink[];
    others: Passage[];
  }
  /** Where a passage is filed: sections of the outline, tasks at it, links with other passages. */
  let { passage, sections, placed, tasks, links, others }: Props = $props();

  let kind = $state<LinkKind>('supports');
  let other = $state('');
  const linked = $derived(new Set(links.map((link) => link.other.id)));
  const open = $derived(others.filter((p) => p.id !== passage.id && !linked.has(p.id)));
  const lineOf = (p: Passage) => (p.gist || p.exact || p.ownWords).slice(0, 80);

  async function place(sectionId: string, wanted: boolean) {
    const put = (act: 'place' | 'unplace') =>
      call('POST', '/api/passages/many', { act, ids: [passage.id], sectionId });
    const made = await attempt(() => put(wanted ? 'place' : 'unplace'));
    if (!made) return;
    const name = sections.find((s) => s.id === sectionId)?.name ?? '';
    doneWithUndo(wanted ? `Under “${name}”.` : `No longer under “${name}”.`, () =>
      put(wanted ? 'unplace' : 'place'),
    );
    await renewed();
  }

  const setLink = (from: string, to: string, as: LinkKind | null) =>
    call<{ before: LinkKind | null }>('POST', `/api/passages/${from}/links`, { to, kind: as });

  async function link() {
    const to = other;
    const made = await attempt(() => setLink(passage.id, to, kind));
    if (!made) return;
    other = '';
    doneWithUndo('The passages are linked.', () => setLink(passage.id, to, made.before));
    await renewed();
  }

  async function unlink({ way, other: { id } }: PassageLink) {
    const [from, to] = way === 'to' ? [passage.id, id] : [id, passage.id];
    const made = await attempt(() => setLink(from, to, null));
    if (!made) return;
    if (made.before) doneWithUndo('The link is taken away.', () => setLink(from, to, made.before));
    else done('The link was gone already.');
    await renewed();
  }
</script>

<section class="filing" aria-label="Where it is filed">
  {#if sections.length}
    <fieldset>
      <legend class="small-label">Sections</legend>
      {#each sections as section (section.id)}
        <label
          ><Checkbox
            checked={placed.includes(section.id)}
            onchange={(e) => place(section.id, e.currentTarget.checked)}
          />
          {section.name}</label
        >
      {/each}
    </fieldset>
  {/if}
  <div>
    <h3 class="small-label">To do here</h3>
    <TaskList {tasks} passageId={passage.id} where={false} />
  </div>
  <div>
    <h3 class="small-label">Linked with</h3>
    {#each links as one (one.way + one.other.id)}
      <p class="link-row">
        <span
          ><i>{LINK_LABELS[one.kind][one.way]}</i>
          {#if one.other.copyId}<a class="link" href="/copies/{one.other.copyId}?passage={one.other.id}"
              >{lineOf(one.other)}</a
            >{:else}{lineOf(one.other)}{/if}
          <span class="small-label">{one.other.sourceLabel}</span></span
        >
        <Button small look="quiet" aria-label="Take the link away" onclick={() => unlink(one)}>×</Button>
      </p>
    {/each}
    {#if open.length}
      <div class="adding">
        <Select aria-label="What it says of the other" bind:value={kind}>
          {#each LINK_KINDS as k (k)}<option value={k}>{LINK_LABELS[k].to}</option>{/each}
        </Select>
        <Select aria-label="The other passage" bind:value={other}>
          <option value="">choose a passage</option>
          {#each open as p (p.id)}<option value={p.id}>{lineOf(p)}</option>{/each}
        </Select>
        <Button small disabled={!other} onclick={link}>Link</Button>
      </div>
    {:else if links.length === 0}<p class="small-label">There is no other passage yet.</p>{/if}
  </div>
</section>

<style>
  .filing {
    display: grid;
    gap: 10px;
    width: min(500px, calc(100vw - 24px));
    margin-top: -8px;
    padding: 16px 14px 12px;
    border: 1px solid var(--edge);
    border-top: 0;
    border-radius: 0 0 10px 10px;
    background: var(--side);
    box-shadow: 0 10px 34px rgb(0 0 0 / 20%);
    font-size: 13px;
  }
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
  }
  fieldset label {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .link-row,
  .adding {
    gap: 6px;
  }
  .link-row {
    display: flex;
    align-items: start;
    justify-content: space-between;
  }
  .adding {
    display: grid;
    grid-template-columns: 132px minmax(0, 1fr) auto;
    align-items: center;
    margin-top: 4px;
  }
  .adding :global(select) {
    width: 100%;
    min-width: 0;
    font-size: 13px;
  }
</style>
