<script lang="ts">
  import { asking } from '$lib/core/query';
  import { TYPE_LABELS, type CslType } from '$lib/core/source';
  import type { chartsOf } from '$lib/server/overview';
  import { shortDay } from '../frame/dates';
  import { READING_NAMES } from '../source/naming';
  import { mostOf, spanOf, yearBins } from '../source/years';
  import CountChart, { MOST_STACKED } from './CountChart.svelte';

  /** How the work goes, as charts: what was added, what is read, what the sections rest on, of which years and kinds. */
  let { charts }: { charts: Awaited<ReturnType<typeof chartsOf>> } = $props();

  /** How many kinds are drawn. */
  const KINDS = 8;
  const SECTIONS = 20;
  const nameOf = (type: string) => TYPE_LABELS[type as CslType] ?? type;
  const most = $derived(mostOf(charts.years));
  const late = $derived(charts.years.filter(({ year }) => year >= most.from && year <= most.to));
  const bins = $derived(yearBins(late));
  /** The kinds that are told apart by year: those there are most of, and what is left as one. */
  const told = $derived(
    charts.types
      .slice(0, charts.types.length > MOST_STACKED ? MOST_STACKED - 1 : MOST_STACKED)
      .map(({ type }) => type),
  );
  const stack = $derived(
    charts.types.length > told.length ? [...told, undefined] : (told as (string | undefined)[]),
  );
  const inStack = (type: string) => (told.includes(type) ? type : undefined);
  const queryOf = (type: string | undefined) =>
    type ? asking(['type', [type]]) : told.map((one) => `-${asking(['type', [one]])}`).join(' ');
  const earlier = $derived(charts.years.reduce((sum, { year, n }) => sum + (year < most.from ? n : 0), 0));
  const read = $derived(charts.reading.some(({ n }) => n > 0));
  const thin = (sources: number, passages: number) =>
    sources + passages === 0
      ? 'nothing yet'
      : sources === 1
        ? 'one source only'
        : passages === 0
          ? 'no passages'
          : '';
  const bare = $derived(charts.sections.filter(({ sources, passages }) => thin(sources, passages) !== ''));
</script>

<div class="charts">
  <div class="column">
    {#if charts.sections.length}
      <div>
        <CountChart
          title="What the sections rest on"
          of={['sources', 'passages']}
          lying
          points={charts.sections.slice(0, SECTIONS).map(({ id, name, depth, sources, passages }) => ({
            text: '\u2003'.repeat(depth) + name,
            n: [sources, passages],
            href: `/sources?section=${id}`,
            says: thin(sources, passages),
          }))}
        />
        {#if bare.length}
          <h2>Sections with little evidence</h2>
          <ul>
            {#each bare.slice(0, SECTIONS) as { id, name, sources, passages } (id)}
              <li>
                <a class="link" href="/sources?section={id}">{name}</a>
                <span class="small-label">{thin(sources, passages)}</span>
              </li>
            {/each}
          </ul>
        {/if}
      </div>
    {/if}
    {#if charts.types.length > 1}
      <CountChart
        title="By kind"
        of={['sources']}
        lying
        points={charts.types.slice(0, KINDS).map(({ type, n }) => ({
          text: nameOf(type),
          n: [n],
          href: `/sources?q=type:${type}`,
        }))}
      />
    {/if}
  </div>
  <div class="column">
    <CountChart
      title="Added by week"
      of={['sources']}
      points={charts.weeks.map(({ from, to, n }) => ({
        text: shortDay(from),
        n: [n],
        href: `/sources?q=added:${from}..${to}`,
      }))}
    />
    {#if read}
      <CountChart
        title="Reading"
        of={['sources']}
        lying
        points={charts.reading.map(({ state, n }) => ({
          text: READING_NAMES[state],
          n: [n],
          href: `/sources?q=reading:${state}`,
        }))}
      />
    {/if}
    {#if bins.length > 1}
      <CountChart
        title="By year of publication and kind"
        of={stack.map((type) => (type ? nameOf(type) : 'Other kinds'))}
        stacked
        height={220}
        points={bins.map(({ from, to }) => ({
          text: spanOf(String(from), String(to)),
          short: String(from),
          n: stack.map((type) =>
            late.reduce(
              (sum, one) =>
                sum + (one.year >= from && one.year <= to && inStack(one.type) === type ? one.n : 0),
              0,
            ),
          ),
          href: `/sources?from=${from}&to=${to}`,
          hrefs: stack.map((type) => `/sources?from=${from}&to=${to}&q=${encodeURIComponent(queryOf(type))}`),
        }))}
      />
      {#if earlier}
        <p class="small-label">
          {earlier.toLocaleString('en')} more before {most.from}:
          <a class="link" href="/sources?to={most.from - 1}">show them</a>
        </p>
      {/if}
    {/if}
  </div>
</div>

<style>
  .charts {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(400px, 100%), 1fr));
    gap: 30px 40px;
    align-items: start;
    padding: 26px 26px 50px;
    border-top: 1px solid var(--rule);
  }
  .column {
    display: grid;
    gap: 30px;
    min-width: 0;
  }
  h2 {
    margin: 18px 0 6px;
    color: var(--ink-3);
    font-size: 12.5px;
    font-weight: 650;
  }
  li {
    display: flex;
    gap: 8px;
    justify-content: space-between;
    padding: 4px 0;
    border-bottom: 1px solid var(--rule);
    font-size: 14px;
  }
</style>
