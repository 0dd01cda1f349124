<script lang="ts">
  import { Button, Dialog, Empty, PageHead } from '$lib/ui/kit';
  import { KIND_LABELS } from '$lib/core/passages';
  import type { BinKind } from '$lib/server/bin';
  import TypeGlyph from '$lib/ui/source/TypeGlyph.svelte';
  import { call } from '$lib/ui/frame/client';
  import { dateLabel } from '$lib/ui/frame/dates';
  import { attempt, done } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();

  const others = $derived([
    { kind: 'leads' as const, name: 'Leads', rows: data.bin.leads },
    { kind: 'tasks' as const, name: 'Tasks', rows: data.bin.tasks },
    { kind: 'notes' as const, name: 'Notes', rows: data.bin.notes },
    {
      kind: 'sections' as const,
      name: 'Sections',
      rows: data.bin.sections.map(({ id, name, project, binned }) => ({
        id,
        binned,
        text: `${name} (of ${project})`,
      })),
    },
    {
      kind: 'projects' as const,
      name: 'Projects',
      rows: data.bin.projects.map(({ id, name, binned, sources }) => ({
        id,
        binned,
        text: `${name} (${many(sources, 'source', 'sources')})`,
      })),
    },
  ]);
  const SAID = {
    sources: 'The source is back, with its passages and copies.',
    passages: 'The passage is back.',
    leads: 'The lead is back.',
    tasks: 'The task is back.',
    notes: 'The note is back.',
    sections: 'The section is back, with what stands under it.',
    projects: 'The project is back.',
  };

  const ONE = { leads: 'lead', tasks: 'task', notes: 'note', sections: 'section', projects: 'project' };

  /** How much of what is in the bin is on the page. */
  const shown = $derived(
    data.bin.sources.length +
      data.bin.passages.length +
      others.reduce((sum, { rows }) => sum + rows.length, 0),
  );

  type Leaving = { title: string; words: string; of: Partial<Record<BinKind, string[]>> };
  /** What is about to be deleted for good, and in what words. It stays while the dialogue that asks fades away. */
  let leaving = $state.raw<Leaving>();
  let asked = $state(false);
  function ask(what: Leaving) {
    leaving = what;
    asked = true;
  }
  const many = (n: number, one: string, more: string) => `${n.toLocaleString('en')} ${n === 1 ? one : more}`;
  const joined = (parts: string[]) =>
    parts.length > 1 ? `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}` : (parts[0] ?? '');
  const hanging = (sources: { passages: number; copies: number }[]) => {
    const [passages, copies] = [
      sources.reduce((sum, s) => sum + s.passages, 0),
      sources.reduce((sum, s) => sum + s.copies, 0),
    ];
    return joined([
      ...(passages ? [many(passages, 'passage', 'passages')] : []),
      ...(copies ? [many(copies, 'copy', 'copies')] : []),
    ]);
  };
  const withSource = (source: { id: string; headline: string; passages: number; copies: number }) => {
    const along = hanging([source]);
    return {
      title: 'Delete the source for good?',
      words: `${source.headline} goes${along ? ` with ${along}` : ''}. Your notes on it stay.`,
      of: { sources: [source.id] },
    };
  };
  function everything() {
    const { sources, passages, leads, tasks, notes, sections, projects } = data.bin;
    const along = hanging(sources);
    const rest = data.counts.bin - shown;
    return {
      title: 'Empty the bin?',
      words: `${joined([
        ...(sources.length
          ? [many(sources.length, 'source', 'sources') + (along ? ` (with ${along})` : '')]
          : []),
        ...(passages.length ? [many(passages.length, 'passage', 'passages')] : []),
        ...(leads.length ? [many(leads.length, 'lead', 'leads')] : []),
        ...(tasks.length ? [many(tasks.length, 'task', 'tasks')] : []),
        ...(notes.length ? [many(notes.length, 'note', 'notes')] : []),
        ...(sections.length ? [many(sections.length, 'section', 'sections')] : []),
        ...(projects.length ? [many(projects.length, 'project', 'projects')] : []),
      ])} will be deleted for good.${rest > 0 ? ` ${rest.toLocaleString('en')} more, which are not shown here, stay in the bin.` : ''}`,
      of: {
        passages: passages.map((p) => p.id),
        leads: leads.map((l) => l.id),
        tasks: tasks.map((t) => t.id),
        notes: notes.map((n) => n.id),
        sources: sources.map((s) => s.id),
        sections: sections.map((s) => s.id),
        projects: projects.map((p) => p.id),
      },
    };
  }
  async function deleteThem() {
    if (!asked || !leaving) return;
    asked = false;
    const { of } = leaving;
    await attempt(async () => {
      await call('DELETE', '/api/bin', of);
      done('Deleted for good.');
    });
  }

  async function back(kind: keyof typeof SAID, id: string) {
    await attempt(async () => {
      if (kind === 'sources') await call('POST', '/api/sources/bin', { ids: [id], binned: false });
      else if (kind === 'projects') await call('POST', `/api/projects/${id}`, { binned: false });
      else if (kind === 'sections') await call('POST', `/api/sections/${id}`, { act: 'bring back' });
      else if (kind === 'leads') await call('POST', `/api/leads/${id}`, { act: 'restore' });
      else await call('POST', `/api/${kind}/${id}/bin`, { binned: false });
      done(SAID[kind]);
    });
  }
</script>

<svelte:head><title>Bin · Retexa</title></svelte:head>

<PageHead>
  <h1>Bin</h1>
  <span class="sub">of the whole library; nothing leaves it by itself</span>
  <span class="flex-1"></span>
  {#if shown}
    <Button needs="edit" small look="quiet" onclick={() => ask(everything())}>Empty the bin…</Button>
  {/if}
</PageHead>

{#if shown === 0}
  <Empty>
    <h2>The bin is empty</h2>
    <p>What you put here can be brought back, with everything that hangs on it.</p>
  </Empty>
{:else}
  <div class="body">
    {#if data.bin.sources.length}
      <h2>Sources</h2>
      <ul>
        {#each data.bin.sources as source (source.id)}
          <li>
            <TypeGlyph type={source.type} class="text-ink-3" />
            <a class="what serif" href="/sources/{source.id}">{source.headline}</a>
            <span class="small-label">{dateLabel(source.binned)}</span>
            <Button needs="edit" small onclick={() => back('sources', source.id)}>Bring it back</Button>
            <Button
              needs="edit"
              small
              look="quiet"
              aria-label="Delete {source.headline} for good"
              onclick={() => ask(withSource(source))}>Delete for good…</Button
            >
          </li>
        {/each}
      </ul>
    {/if}
    {#if data.bin.passages.length}
      <h2>Passages</h2>
      <ul>
        {#each data.bin.passages as passage (passage.id)}
          <li>
            <span class="small-label">{KIND_LABELS[passage.kind]}</span>
            <span class="what"
              >{#if passage.gist}<strong>{passage.gist}</strong>{/if} <q class="serif">{passage.exact}</q>
              <span class="small-label">{passage.label}</span></span
            >
            <span class="small-label">{dateLabel(passage.binned)}</span>
            <Button needs="annotate" small onclick={() => back('passages', passage.id)}>Bring it back</Button>
            <Button
              needs="edit"
              small
              look="quiet"
              onclick={() =>
                ask({
                  title: 'Delete the passage for good?',
                  words: `“${passage.exact.slice(0, 160)}” goes with its gist and your own words.`,
                  of: { passages: [passage.id] },
                })}>Delete for good…</Button
            >
          </li>
        {/each}
      </ul>
    {/if}
    {#each others.filter((o) => o.rows.length) as { kind, name, rows } (kind)}
      <h2>{name}</h2>
      <ul>
        {#each rows as row (row.id)}
          <li>
            <span class="what">{row.text}</span>
            <span class="small-label">{dateLabel(row.binned)}</span>
            <Button needs="annotate" small onclick={() => back(kind, row.id)}>Bring it back</Button>
            <Button
              needs="edit"
              small
              look="quiet"
              onclick={() =>
                ask({
                  title: `Delete the ${ONE[kind]} for good?`,
                  words:
                    kind === 'projects'
                      ? `${row.text} goes with its sections. The sources stay in the library.`
                      : kind === 'sections'
                        ? `${row.text} goes with the sections under it. The sources stay in the library.`
                        : `“${row.text.slice(0, 160)}” goes.`,
                  of: { [kind]: [row.id] },
                })}>Delete for good…</Button
            >
          </li>
        {/each}
      </ul>
    {/each}
  </div>
{/if}

<Dialog bind:open={asked} title={leaving?.title ?? ''} size="sm">
  <p>{leaving?.words}</p>
  <p>This cannot be undone.</p>
  <p class="flex gap-2">
    <Button look="main" autofocus onclick={() => (asked = false)}>Leave it in the bin</Button>
    <Button onclick={deleteThem}><span class="pencil-red">Delete for good</span></Button>
  </p>
</Dialog>

<style>
  .body {
    padding: 14px 26px 60px;
  }
  h2 {
    margin-top: 12px;
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  li {
    display: flex;
    align-items: center;
    gap: 14px;
    padding: 9px 0;
    border-bottom: 1px solid var(--rule);
  }
  .what {
    flex: 1;
    min-width: 0;
  }
  .what.serif,
  q {
    font-size: 15.5px;
  }
</style>
