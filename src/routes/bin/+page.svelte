<script lang="ts">
  import { KIND_LABELS } from '$lib/core/passages';
  import TypeGlyph from '$lib/ui/TypeGlyph.svelte';
  import { call, dateLabel } from '$lib/ui/client';
  import { attempt, done } from '$lib/ui/toasts.svelte';

  let { data } = $props();

  const others = $derived([
    { kind: 'leads' as const, name: 'Leads', rows: data.bin.leads },
    { kind: 'notes' as const, name: 'Notes', rows: data.bin.notes },
  ]);
  const SAID = {
    sources: 'The source is back, with its passages and copies.',
    passages: 'The passage is back.',
    leads: 'The lead is back.',
    notes: 'The note is back.',
  };

  async function back(kind: keyof typeof SAID, id: string) {
    await attempt(async () => {
      if (kind === 'sources') await call('POST', '/api/sources/bin', { ids: [id], binned: false });
      else if (kind === 'leads') await call('POST', `/api/leads/${id}`, { act: 'restore' });
      else await call('POST', `/api/${kind}/${id}/bin`, { binned: false });
      done(SAID[kind]);
    });
  }
</script>

<svelte:head><title>Bin · Retexa</title></svelte:head>

<header class="head">
  <h1>Bin</h1>
  <span class="sub">of the whole library; nothing leaves it by itself</span>
</header>

{#if data.bin.sources.length + data.bin.passages.length + data.bin.leads.length + data.bin.notes.length === 0}
  <div class="empty">
    <h2>The bin is empty</h2>
    <p>What you put here can be brought back, with everything that hangs on it.</p>
  </div>
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
            <button class="btn small" onclick={() => back('sources', source.id)}>Bring it back</button>
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
            <button class="btn small" onclick={() => back('passages', passage.id)}>Bring it back</button>
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
            <button class="btn small" onclick={() => back(kind, row.id)}>Bring it back</button>
          </li>
        {/each}
      </ul>
    {/each}
  </div>
{/if}

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
