<script lang="ts">
  import type { Counts } from '$lib/server/services/overview';
  import { page } from '$app/state';

  /** The steps of the work, in its order, with what waits at each. */
  let { counts }: { counts: Counts } = $props();

  const steps = $derived([
    { href: '/', name: 'Desk' },
    { href: '/intake', name: 'Intake', waiting: counts.intake },
    { href: '/sources', name: 'Sources', count: counts.sources },
    { href: '/passages', name: 'Passages', count: counts.passages },
    { href: '/references', name: 'Reference list' },
  ]);
  const aside = $derived([
    { href: '/leads', name: 'Leads', count: counts.leads },
    { href: '/notes', name: 'Notes', count: counts.notes },
    { href: '/duplicates', name: 'Duplicates', waiting: counts.duplicates },
    { href: '/import', name: 'Import' },
    { href: '/ways-in', name: 'Ways in' },
    { href: '/bin', name: 'Bin', count: counts.bin },
  ]);
  const here = (href: string) =>
    href === '/'
      ? page.url.pathname === '/'
      : page.url.pathname.startsWith(href) ||
        (href === '/sources' && page.url.pathname.startsWith('/copies'));
</script>

<nav class="path" aria-label="The work, step by step">
  <ol class="thread">
    {#each steps as step (step.href)}
      <li>
        <a href={step.href} aria-current={here(step.href) ? 'page' : undefined}>
          <span class="knot"></span>
          <span class="name">{step.name}</span>
          {#if step.waiting}<span class="waiting" title="{step.waiting} waiting">{step.waiting}</span>
          {:else if step.count !== undefined}<span class="count">{step.count.toLocaleString('en')}</span>{/if}
        </a>
      </li>
    {/each}
  </ol>
  <ul class="aside">
    {#each aside as step (step.href)}
      <li>
        <a href={step.href} aria-current={here(step.href) ? 'page' : undefined}>
          <span class="name">{step.name}</span>
          {#if step.waiting}<span class="waiting" title="{step.waiting} waiting">{step.waiting}</span>
          {:else if step.count}<span class="count">{step.count.toLocaleString('en')}</span>{/if}
        </a>
      </li>
    {/each}
  </ul>
</nav>

<style>
  .path {
    display: flex;
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
    width: 16px;
    height: 16px;
    border: 2px solid color-mix(in srgb, var(--ink-3) 65%, transparent);
    border-radius: 50%;
    background: var(--side);
  }
  a[aria-current] .knot {
    border-color: var(--thread);
    background: var(--thread);
    box-shadow: 0 0 0 4px var(--thread-soft);
  }
  .name {
    flex: 1;
  }
  .count {
    color: var(--ink-3);
    font-size: 12.5px;
    font-weight: 500;
  }
  .waiting {
    min-width: 23px;
    padding: 1px 7px;
    border-radius: 11px;
    background: var(--blue-soft);
    color: var(--blue-pencil);
    font-size: 12.5px;
    font-weight: 700;
    text-align: center;
  }
  @media (max-width: 760px) {
    .path {
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
