<script lang="ts">
  import type { ApexOptions } from 'apexcharts';
  import { goto } from '$app/navigation';
  import { Chart } from '../kit';

  interface Point {
    text: string;
    /** How it is called on the axis, where that has little room. */
    short?: string;
    /** One number for each of `of`. */
    n: number[];
    href: string;
    /** What is to be said of it beside its numbers. */
    says?: string;
  }
  /** Numbers as bars, each of which leads to what it counts; the same is there as a list, for keys and for reading out. */
  let {
    title,
    of,
    points,
    lying = false,
    height = lying ? 46 + points.length * 26 : 170,
  }: {
    title: string;
    /** What is counted, such as sources. */
    of: string[];
    points: Point[];
    /** The bars lie, with room for long names. */
    lying?: boolean;
    height?: number;
  } = $props();

  const options = $derived<ApexOptions>({
    series: of.map((name, i) => ({ name, data: points.map((point) => point.n[i] ?? 0) })),
    colors: ['--thread', '--tint-evidence'],
    chart: {
      type: 'bar',
      toolbar: { show: false },
      events: {
        dataPointSelection: (
          _event: unknown,
          _chart: unknown,
          { dataPointIndex: i }: { dataPointIndex: number },
        ) => void goto(points[i]!.href),
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
    legend: { show: of.length > 1, position: 'top', horizontalAlign: 'left' },
    tooltip: {
      x: {
        formatter: (_: unknown, at?: { dataPointIndex: number }) =>
          points[at?.dataPointIndex ?? -1]?.text ?? '',
      },
      y: { formatter: (n: number) => n.toLocaleString('en') },
    },
  });
  const words = ({ n }: Point) => n.map((count, i) => `${count.toLocaleString('en')} ${of[i]}`).join(', ');
</script>

<section>
  <h2>{title}</h2>
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
          <span class="small-label">{words(point)}{point.says ? ` · ${point.says}` : ''}</span>
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
  li {
    display: flex;
    gap: 8px;
    justify-content: space-between;
    padding: 2px 0;
    font-size: 13px;
  }
</style>
