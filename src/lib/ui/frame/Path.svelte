<script lang="ts">
  import { Badge } from '../kit';
  import type { SavedQuery } from '$lib/server/queries';
  import type { Counts } from '$lib/server/overview';
  import { page } from '$app/state';
  import { keyFor } from './actions.svelte';
  import { ASIDE, STEPS } from './keys';
  import SavedPath from './SavedPath.svelte';

  /** The steps of the work, in its order, with what waits at each. */
  let {
    counts,
    choosing,
    saved,
    savedCounts,
  }: {
    counts: Counts;
    /** Choices in which who looks still has something to judge. */
    choosing: number;
    saved: SavedQuery[];
    savedCounts: Promise<Record<string, number> | undefined>;
  } = $props();

  const waiting = $derived<Partial<Record<string, number>>>({
    intake: counts.intake,
    duplicates: counts.duplicates,
    choices: choosing,
  });
  const held = $derived<Partial<Record<string, number>>>({
    sources: counts.sources,
    passages: counts.passages,
    proof: counts.findings,
    leads: counts.leads,
    notes: counts.notes,
    bin: counts.bin,
  });
  let nav: HTMLElement | undefined = $state();
  // On a narrow screen the path is a line: the step one is at stays in view.
  $effect(() => {
    void page.url.pathname;
    // In the frame that lays the new view out anyway.
    const frame = requestAnimationFrame(() =>
      nav?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest', inline: 'center' }),
    );
    return () => cancelAnimationFrame(frame);
  });
  const here = (href: string) =>
    href === '/'
      ? page.url.pathname === '/'
      : page.url.pathname.startsWith(href) ||
        (href === '/sources' && page.url.pathname.startsWith('/copies'));
</script>

{#snippet count(id: string)}
  {#if waiting[id]}<Badge look="waiting" data-tip="{waiting[id].toLocaleString('en')} waiting"
      >{waiting[id].toLocaleString('en')}</Badge
    >
  {:else if held[id]}<Badge>{held[id].toLocaleString('en')}</Badge>{/if}
{/snippet}

<nav class="path" aria-label="The work, step by step" bind:this={nav}>
  <ol class="thread">
    {#each STEPS as { id, href, name }, i (href)}
      <li>
        <a
          {href}
          aria-current={here(href) ? 'page' : undefined}
          aria-keyshortcuts={keyFor(`go ${id}`)}
          data-tip="{name} ({keyFor(`go ${id}`) ?? 'no key'})"
        >
          <span class="knot" aria-hidden="true">{i + 1}</span>
          <span class="name">{name}</span>
          {@render count(id)}
        </a>
      </li>
    {/each}
  </ol>
  <ul class="aside">
    {#each ASIDE as { id, href, name } (href)}
      <li>
        <a {href} aria-current={here(href) ? 'page' : undefined}>
          <span class="name">{name}</span>
          {@render count(id)}
        </a>
      </li>
    {/each}
  </ul>
  <SavedPath {saved} counts={savedCounts} />
</nav>

<style>
  .path {
    display: flex;
    grid-row: 2 / 4;
    flex-direction: column;
    padding: 14px 0;
    border-right: 1px solid var(--rule);
    background: var(--side);
    overflow-y: auto;
  }
  .thread {
    position: relative;
    padding-bottom: 14px;
    border-bottom: 1px solid var(--rule);
  }
  .thread::before {
    content: '';
    position: absolute;
    top: 20px;
    bottom: 34px;
    left: 25px;
    border-left: 2px dashed color-mix(in srgb, var(--ink-3) 45%, transparent);
  }
  .aside {
    padding-top: 12px;
  }
  a {
    position: relative;
    display: flex;
    align-items: center;
    gap: 12px;
    height: 42px;
    padding: 0 14px 0 18px;
    color: var(--ink-2);
    font-weight: 550;
  }
  .aside a {
    height: 34px;
  }
  a:hover {
    color: var(--ink);
    background: color-mix(in srgb, var(--thread-soft) 60%, transparent);
  }
  a[aria-current] {
    color: var(--ink);
    font-weight: 700;
  }
  .knot {
    display: grid;
    place-items: center;
    width: 18px;
    height: 18px;
    margin: 0 -1px;
    color: var(--ink-3);
    font-size: 10.5px;
    font-weight: 650;
    line-height: 1;
    border: 2px solid color-mix(in srgb, var(--ink-3) 65%, transparent);
    border-radius: 50%;
    background: var(--side);
  }
  a[aria-current] .knot {
    border-color: var(--thread);
    background: var(--thread);
    color: var(--on-thread);
    box-shadow: 0 0 0 4px var(--thread-soft);
  }
  .name {
    flex: 1;
  }
  @media (max-width: 760px) {
    .path {
      grid-row: auto;
      flex-direction: row;
      padding: 0 4px;
      border-right: 0;
      border-bottom: 1px solid var(--rule);
      overflow-x: auto;
    }
    .thread,
    .aside {
      display: flex;
      padding: 0;
      border: 0;
    }
    .thread::before,
    .knot {
      display: none;
    }
    a,
    .aside a {
      height: 40px;
      gap: 6px;
      padding: 0 9px;
      white-space: nowrap;
    }
  }
</style>
