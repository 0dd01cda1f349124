<script lang="ts">
  import { thinness, within } from '$lib/core/outline';
  import { TINTS } from '$lib/core/passages';
  import type { OutlineItem, OutlineSection } from '$lib/server/projects';
  import CountChart from '../desk/CountChart.svelte';
  import { spanOf, yearBins } from '../source/years';
  import { standingsOf, yearsOf } from './lines';

  interface Props {
    sections: OutlineSection[];
    items: OutlineItem[];
    /** The section one is in: tints and years are of it, with those under it. */
    section: OutlineSection | undefined;
  }
  /** What the sections rest on, and what the one stands on that one is in. */
  let { sections, items, section }: Props = $props();
  const standing = $derived(standingsOf(sections, items));
  const rests = $derived(
    sections.map(({ id, name, depth }) => {
      const of = standing.get(id)!;
      return { id, name, depth, of, thin: thinness(of) };
    }),
  );
  const thin = $derived(rests.filter((r) => r.thin));
  const here = $derived.by(() => {
    const ids = section && within(sections, section.id);
    return items.filter((item) => !ids || ids.has(item.sectionId));
  });
  const tints = $derived(
    TINTS.map((tint) => ({ tint, n: here.filter((item) => item.passage?.tint === tint).length })),
  );
  const years = $derived(yearBins(yearsOf(here)));
  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
</script>

<aside class="glance" aria-label="At a glance">
  <CountChart
    title="What the sections rest on"
    of={['sources', 'passages']}
    lying
    points={rests.slice(0, 30).map(({ id, name, depth, of, thin: why }) => ({
      text: '\u2003'.repeat(depth) + name,
      n: [of.sources, of.passages],
      href: `/outline?beside=glance&at=${id}`,
      says: why ?? '',
    }))}
  />
  {#if thin.length}
    <h2>Thin so far</h2>
    <ul>
      {#each thin as { id, name, thin: why } (id)}
        <li>
          <a class="link" href="/outline?beside=glance&at={id}">{name}</a>
          <span class="pencil-blue">{why}</span>
        </li>
      {/each}
    </ul>
  {/if}
  {#if tints.some(({ n }) => n > 0)}
    <CountChart
      title={section ? `Passages by tint in ${section.name}` : 'Passages by tint'}
      of={['passages']}
      lying
      points={tints.map(({ tint, n }) => ({ text: capital(tint), n: [n], href: `/passages?tint=${tint}` }))}
    />
  {/if}
  {#if years.length > 1}
    <CountChart
      title={section ? `Years of the works in ${section.name}` : 'Years of the works'}
      of={['sources']}
      points={years.map(({ from, to, n }) => ({
        text: spanOf(String(from), String(to)),
        short: String(from),
        n: [n],
        href: `/sources?from=${from}&to=${to}`,
      }))}
    />
  {/if}
</aside>

<style>
  .glance {
    display: grid;
    flex: none;
    gap: 20px;
    align-content: start;
    width: 330px;
    min-height: 0;
    padding: 14px;
    overflow-y: auto;
    border-left: 2px solid var(--margin-rule);
    background: var(--side);
  }
  h2 {
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 8px;
    padding: 3px 0;
    font-size: 13px;
  }
  @media (max-width: 900px) {
    .glance {
      width: auto;
      max-height: 40vh;
      border-left: 0;
      border-top: 2px solid var(--margin-rule);
    }
  }
</style>
