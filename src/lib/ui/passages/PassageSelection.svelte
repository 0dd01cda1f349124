<script lang="ts">
  import type { Section } from '$lib/server/projects';
  import { call } from '../frame/client';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done, doneWithUndo } from '../frame/toasts.svelte';
  import { Button, Select } from '../kit';
  import TagThem from '../source/TagThem.svelte';
  import PassageOut from './PassageOut.svelte';

  interface Props {
    ids: string[];
    sections: Section[];
    tags: string[];
    title: string;
    onclear: () => void;
  }
  /** What can be done with the passages selected. */
  let { ids, sections, tags, title, onclear }: Props = $props();
  let section = $state('');
  const many = (n: number) => (n === 1 ? 'One passage is' : `${n.toLocaleString('en')} passages are`);

  type Done = { revisions: string[]; changed: string[] };
  const act = (body: object) => attempt(() => call<Done>('POST', '/api/passages/many', { ids, ...body }));

  async function addTag(wanted: string) {
    const made = await act({ act: 'tag', tag: wanted });
    if (!made) return false;
    done(
      made.changed.length ? `${many(made.changed.length)} tagged “${wanted}”.` : 'All of them have that tag.',
      made.revisions,
    );
    await renewed();
    return true;
  }
  async function place(sectionId: string) {
    const name = sections.find((s) => s.id === sectionId)?.name ?? '';
    const made = await act({ act: 'place', sectionId });
    section = '';
    if (!made) return;
    const { changed } = made;
    if (changed.length === 0) return done(`All of them are under “${name}” already.`);
    doneWithUndo(`${many(changed.length)} under “${name}”.`, () =>
      call('POST', '/api/passages/many', { act: 'unplace', ids: changed, sectionId }),
    );
    await renewed();
  }
  async function bin() {
    const made = await act({ act: 'bin' });
    if (!made) return;
    onclear();
    done(`${many(made.changed.length)} in the bin.`, made.revisions);
    await renewed();
  }
</script>

<footer class="bar" aria-label="Selected passages">
  <strong class="whitespace-nowrap">{ids.length.toLocaleString('en')} selected</strong>
  <TagThem {tags} ontag={addTag} />
  {#if sections.length}
    <Select
      look="chip"
      aria-label="Section to file under"
      bind:value={section}
      onchange={(e) => e.currentTarget.value && void place(e.currentTarget.value)}
    >
      <option value="">File under…</option>
      {#each sections as { id, name } (id)}<option value={id}>{name}</option>{/each}
    </Select>
  {/if}
  <PassageOut {ids} {title} />
  <Button needs="annotate" look="quiet" onclick={bin}>Put in the bin</Button>
  <span class="flex-1"></span>
  <Button look="quiet" onclick={onclear}>Select none</Button>
</footer>

<style>
  .bar {
    display: flex;
    position: sticky;
    bottom: 0;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: center;
    padding: 9px 26px;
    border-top: 1px solid var(--edge);
    background: var(--thread-soft);
  }
</style>
