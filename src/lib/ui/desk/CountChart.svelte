<script module lang="ts">
  /** How numbers that stand on each other are told apart, from the foot up; no colour without its pattern. */
  const STACK = [
    { tint: 'lagoon', look: 'full', pattern: '' },
    { tint: 'brick', look: 'stripes', pattern: 'slantedLines' },
    { tint: 'ochre', look: 'dots', pattern: 'circles' },
    { tint: 'heather', look: 'upright', pattern: 'verticalLines' },
    { tint: 'moss', look: 'chequers', pattern: 'squares' },
    { tint: 'slate', look: 'level', pattern: 'horizontalLines' },
  ];
  /** How many can stand on each other. */
  export const MOST_STACKED = STACK.length;
</script>

<script lang="ts">
  import type { ApexOptions } from 'apexcharts';
  import { goto } from '$app/navigation';
  import { Chart, Swatch } from '../kit';

  interface Point {
    text: string;
    /** How it is called on the axis, where that has little room. */
    short?: string;
    /** One number for each of `of`. */
    n: number[];
    href: string;
    /** Where each of its numbers leads, where that is not the same for all. */
    hrefs?: string[];
    /** What is to be said of it beside its numbers. */
    says?: string;
  }
  /** Numbers as bars, each of which leads to what it counts; the same is there as a list, for keys and for reading out. */
  let {
    title,
    of,
    points,
    lying = false,
    stacked = false,
    height = lying ? 46 + points.length * 26 : 170,
  }: {
    title: string;
    /** What is counted, such as sources. */
    of: string[];
    points: Point[];
    /** The bars lie, with room for long names. */
    lying?: boolean;
    /** The numbers of a point stand on each other, each in a colour and a pattern of its own. */
    stacked?: boolean;
    height?: number;
  } = $props();

  const options = $derived<ApexOptions>({
    series: of.map((name, i) => ({
      name,
      data: points.map((point) => (stacked ? point.n[i] || null : (point.n[i] ?? 0))),
    })),
    colors: stacked ? STACK.map(({ tint }) => `--tag-${tint}`) : ['--thread', '--tint-evidence'],
    ...(stacked
      ? {
          fill: {
            type: STACK.map(({ pattern }) => (pattern ? 'pattern' : 'solid')),
            pattern: { style: STACK.map(({ pattern }) => pattern), width: 5, height: 5, strokeWidth: 2 },
          },
          stroke: { width: 1, colors: STACK.map(({ tint }) => `--tag-${tint}`) },
        }
      : {}),
    chart: {
      type: 'bar',
      stacked,
      toolbar: { show: false },
      events: {
        dataPointSelection: (
          _event: unknown,
          _chart: unknown,
          { dataPointIndex: i, seriesIndex }: { dataPointIndex: number; seriesIndex: number },
        ) => void goto(points[i]!.hrefs?.[seriesIndex] ?? points[i]!.href),
      },
    },
    plotOptions: { bar: { horizontal: lying, columnWidth: '78%', barHeight: '70%', borderRadius: 1 } },
    xaxis: {
      categories: points.map((point) => point.short ?? point.text),
      ...(lying
        ? { labels: { formatter: (value: string) => String(Math.round(Number(value))) }, decimalsInFloat: 0 }
        : {}),
      tickAmount: lying ? 3 : Math.min(points.length - 1, 6),
    },
    yaxis: lying
      ? { labels: { maxWidth: 170 } }
      : { min: 0, forceNiceScale: true, labels: { formatter: (n: number) => String(Math.round(n)) } },
    grid: { padding: { top: -16, right: 8 } },
    legend: { show: of.length > 1 && !stacked, position: 'top', horizontalAlign: 'left' },
    tooltip: {
      x: {
        formatter: (_: unknown, at?: { dataPointIndex: number }) =>
          points[at?.dataPointIndex ?? -1]?.text ?? '',
      },
      y: { formatter: (n: number) => n.toLocaleString('en') },
    },
  });
  const word = (count: number, i: number) => `${count.toLocaleString('en')} ${of[i]}`;
  /** Of many that stand on each other, only what there is. */
  const told = ({ n }: Point) =>
    n.flatMap((count, i) => (count || !stacked ? [{ i, text: word(count, i) }] : []));
  const words = (point: Point) =>
    told(point)
      .map(({ text }) => text)
      .join(', ');
</script>

<section>
  <h2>{title}</h2>
  {#if stacked}
    <ul class="legend" aria-hidden="true">
      {#each of as name, i (name)}
        <li><Swatch tint={STACK[i]!.tint} pattern={STACK[i]!.look} large />{name}</li>
      {/each}
    </ul>
  {/if}
  <Chart
    label="{title}: {points.map((point) => `${point.text} ${words(point)}`).join('; ')}"
    {height}
    {options}
  />
  <details>
    <summary>As a list</summary>
    <ul>
      {#each points as point (point.href)}
        <li>
          <a class="link" href={point.href}>{point.text}</a>
          {#if point.hrefs}
            <span class="small-label"
              >{#each told(point) as { i, text }, at (i)}{at ? ', ' : ''}<a class="link" href={point.hrefs[i]}
                  >{text}</a
                >{/each}</span
            >
          {:else}
            <span class="small-label">{words(point)}{point.says ? ` · ${point.says}` : ''}</span>
          {/if}
        </li>
      {/each}
    </ul>
  </details>
</section>

<style>
  section {
    min-width: 0;
  }
  h2 {
    margin-bottom: 8px;
    color: var(--ink-3);
    font-size: 12.5px;
    font-weight: 650;
  }
  summary {
    color: var(--ink-3);
    font-size: 12px;
    cursor: pointer;
  }
  .legend {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    margin-bottom: 4px;
  }
  .legend li {
    gap: 6px;
    align-items: center;
    justify-content: start;
    font-size: 12px;
  }
  li {
    display: flex;
    gap: 8px;
    justify-content: space-between;
    padding: 2px 0;
    font-size: 13px;
  }
</style>
