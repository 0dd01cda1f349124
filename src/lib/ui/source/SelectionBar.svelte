<script lang="ts">
  import { Button, Input, Select } from '../kit';
  import type { Project } from '$lib/server/projects';
  import type { ShownReference } from '$lib/server/lists';
  import { openCiting } from '../lists/citing.svelte';
  import { call, copyText } from '../frame/client';
  import { attempt, done, doneWithUndo } from '../frame/toasts.svelte';

  interface Props {
    /** The sources selected. */
    ids: string[];
    projects: Project[];
    /** How many sources fit what is looked for. */
    total: number;
    /** Selects all of them. */
    onall: () => void;
    onclear: () => void;
  }
  let { ids, projects, total, onall, onclear }: Props = $props();

  /** References asked for at once. */
  const AT_ONCE = 200;
  let filing = $state(false);
  let tagging = $state('');

  async function bin() {
    const gone = ids.length;
    const made = await attempt(() =>
      call<{ revisions: string[] }>('POST', '/api/sources/bin', { ids, binned: true }),
    );
    if (!made) return;
    onclear();
    done(gone === 1 ? 'The source is in the bin.' : `${gone} sources are in the bin.`, made.revisions);
  }

  async function edit(body: { tag?: string; fix?: boolean }, words: string) {
    const made = await attempt(() =>
      call<{ revisions: string[] }>('POST', '/api/sources/edit', { ids, ...body }),
    );
    if (made) done(made.revisions.length ? words : 'There was nothing to change.', made.revisions);
    tagging = '';
  }

  async function file(projectId: string) {
    filing = false;
    const name = projects.find((p) => p.id === projectId)?.name;
    const filed = await attempt(() =>
      call<{ changed: string[] }>('POST', '/api/sources/file', { ids, projectId, filed: true }),
    );
    if (!filed) return;
    if (filed.changed.length === 0) done(`All of them were in ${name} already.`);
    else
      doneWithUndo(`Filed in ${name}.`, () =>
        call('POST', '/api/sources/file', { ids: filed.changed, projectId, filed: false }),
      );
  }

  async function copy() {
    const references: ShownReference[] = [];
    for (let from = 0; from < ids.length; from += AT_ONCE) {
      const part = await attempt(() =>
        call<ShownReference[]>('POST', '/api/printed', { ids: ids.slice(from, from + AT_ONCE) }),
      );
      // All of them or none: a list that lacks some is worse than none.
      if (!part) return;
      references.push(...part);
    }
    const html = references
      .map(
        (r) =>
          `<p style="margin-left:2em;text-indent:-2em">${r.html.replace(/ ?data-field="[^"]*"/g, '')}</p>`,
      )
      .join('\n');
    await attempt(async () => {
      await copyText(references.map((r) => r.text).join('\n'), html);
      done(references.length === 1 ? 'Reference copied.' : `${references.length} references copied.`);
    });
  }
</script>

<footer class="bar">
  <strong class="whitespace-nowrap">{ids.length.toLocaleString('en')} selected</strong>
  {#if ids.length < total}<Button look="link" onclick={onall}>Select all {total.toLocaleString('en')}</Button
    >{/if}
  {#if filing}
    <Select look="chip" aria-label="Project to file in" onchange={(e) => void file(e.currentTarget.value)}>
      <option value="">File in which project?</option>
      {#each projects as project (project.id)}<option value={project.id}>{project.name}</option>{/each}
    </Select>
  {:else}
    <Button onclick={() => (filing = true)} disabled={projects.length === 0}>File in…</Button>
  {/if}
  <form
    class="flex"
    onsubmit={(e) => {
      e.preventDefault();
      if (tagging.trim()) void edit({ tag: tagging.trim() }, `Tagged ${tagging.trim()}.`);
    }}
  >
    <Input style="width: 110px" placeholder="Tag" aria-label="Tag the selected" bind:value={tagging} />
  </form>
  <Button onclick={() => edit({ fix: true }, 'Findings fixed.')}>Fix findings</Button>
  <Button disabled={ids.length > 50} onclick={() => openCiting(ids.map((id) => ({ id, name: '' })))}
    >Cite</Button
  >
  <Button onclick={copy}>Copy reference{ids.length > 1 ? 's' : ''}</Button>
  <Button href="/references?scope=selection#ids={ids.join(',')}">Print as a list</Button>
  <Button onclick={bin}>Put in the bin</Button>
  <Button look="quiet" onclick={onclear}>Select none</Button>
</footer>

<style>
  .bar {
    display: flex;
    flex: none;
    align-items: center;
    gap: 8px;
    padding: 7px 26px;
    overflow-x: auto;
    border-top: 1px solid var(--edge);
    background: var(--page);
  }
</style>
