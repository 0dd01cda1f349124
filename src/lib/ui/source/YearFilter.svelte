<script lang="ts">
  import { untrack } from 'svelte';
  import { Button, Chart, Input, Popover } from '../kit';
  import { debounce } from '../frame/client';
  import { narrow, narrowedBy } from '../frame/narrowing';
  import { mostOf, spanOf, yearAxis, yearBins, type YearBin } from './years';

  /** How many sources there are by year; a span of years narrows to it, brushed on the chart or typed. */
  let { years: given }: { years: { year: number; n: number }[] } = $props();
  // Narrowing brings the same numbers again: nothing is drawn anew for that, least of all under the pointer.
  const same = $derived(JSON.stringify(given));
  const years = $derived(JSON.parse(same) as typeof given);

  const from = $derived(narrowedBy('from'));
  const to = $derived(narrowedBy('to'));
  type Span = { min: number; max: number };
  const most = $derived(mostOf(years));
  /** All years, in wide bars; and those one looks at, in narrow ones. */
  const all = $derived(yearBins(years));
  const looked = $derived(
    yearBins(years.filter(({ year }) => year >= Number(from || most.from) && year <= Number(to || most.to))),
  );
  const [first, last] = $derived([all[0]?.from ?? 0, all.at(-1)?.to ?? 0]);
  const chosen = $derived(spanOf(from, to));
  const total = $derived(years.reduce((sum, y) => sum + y.n, 0));

  /** Somebody drags over the chart of all years. */
  let brushing = false;
  let held = false;
  let brushed: Span | undefined;
  /** The span the chart of all years has drawn; another one, typed or taken away, is drawn anew. */
  let drawn = '';
  let drawing = $state(0);
  $effect(() => {
    const wanted = `${from} ${to}`;
    if (wanted === drawn) return;
    drawn = wanted;
    untrack(() => drawing++);
  });

  const range = (a?: number, b?: number) =>
    narrow({ from: a === undefined ? undefined : String(a), to: b === undefined ? undefined : String(b) });
  /** A span on the axis, as the years whose bars it touches. */
  function choose({ min, max }: Span) {
    const touched = all.filter((bin) => bin.to + 1 > min && bin.from < max);
    const [a, b] = [touched[0]?.from, touched.at(-1)?.to];
    drawn = `${a} ${b}`;
    range(a, b);
  }
  /** The chart tells of the span several times, last when it is let go, and of the one it begins with as well. */
  const chooseLast = debounce(() => {
    if (brushed) choose(brushed);
    [brushing, brushed] = [false, undefined];
  }, 200);
  function typed(event: Event & { currentTarget: HTMLInputElement }, end: 'from' | 'to') {
    const { value } = event.currentTarget;
    narrow({ [end]: value === '' ? undefined : value });
  }

  /** Bars on an axis of years. */
  const bars = (bins: YearBin[]) => {
    const { min, max, parts } = yearAxis(bins);
    return {
      series: [{ name: 'Sources', data: bins.map((bin) => ({ x: (bin.from + bin.to + 1) / 2, y: bin.n })) }],
      plotOptions: { bar: { columnWidth: '86%', borderRadius: 1 } },
      xaxis: {
        type: 'numeric' as const,
        min,
        max,
        tickAmount: parts,
        decimalsInFloat: 0,
        labels: { formatter: (value: string) => String(Math.round(Number(value))) },
      },
      tooltip: {
        x: {
          formatter: (middle: number) => {
            const bin = bins.find((b) => b.from <= middle && middle < b.to + 1);
            return bin ? spanOf(String(bin.from), String(bin.to)) : '';
          },
        },
      },
    };
  };
  const detail = $derived.by(() => {
    const of = bars(looked);
    return {
      ...of,
      chart: {
        type: 'bar' as const,
        toolbar: { show: false },
        events: {
          dataPointSelection: (
            _event: unknown,
            _chart: unknown,
            { dataPointIndex: i }: { dataPointIndex: number },
          ) => looked[i] && range(looked[i].from, looked[i].to),
        },
      },
      xaxis: { ...of.xaxis, title: { text: 'Year of publication' } },
      grid: { padding: { top: -18 } },
      yaxis: { title: { text: 'Sources' }, labels: { formatter: (n: number) => String(Math.round(n)) } },
    };
  });
  const overview = (bins: YearBin[]) => {
    const of = bars(bins);
    return {
      ...of,
      colors: ['--ink-3'],
      chart: {
        type: 'bar' as const,
        toolbar: { show: false, autoSelected: 'selection' as const },
        selection: {
          enabled: true,
          fill: { color: '--thread', opacity: 0.2 },
          stroke: { color: '--thread', width: 1, opacity: 0.7 },
          xaxis: untrack(() => ({ min: Number(from || most.from), max: Number(to || most.to) + 1 })),
        },
        events: {
          selection: (_chart: unknown, { xaxis }: { xaxis: Span }) => {
            if (!brushing) return;
            brushed = xaxis;
            if (!held) chooseLast();
          },
        },
      },
      yaxis: { show: false },
      grid: { show: false, padding: { top: -24 } },
    };
  };
</script>

<svelte:window
  onpointerup={() => {
    if (!held) return;
    held = false;
    chooseLast();
  }}
/>

{#if all.length > 1}
  <Button look="chip" id="years" aria-pressed={Boolean(chosen)}>Years{chosen ? ` · ${chosen}` : ''}</Button>
  <Popover triggeredBy="#years" label="Years">
    <div class="w-[min(460px,84vw)]">
      <Chart
        label="{total.toLocaleString('en')} sources by year of publication, {first} to {last}"
        height={170}
        options={detail}
      />
      <div role="presentation" onpointerdown={() => (brushing = held = true)}>
        {#key drawing}
          <Chart label="All years, to choose some of them" height={80} options={overview(all)} />
        {/key}
      </div>
      <div class="flex flex-wrap items-center gap-2 text-[13px]">
        {#each [['From', 'from', from] as const, ['to', 'to', to] as const] as [words, end, value] (end)}
          <label class="flex items-center gap-2"
            >{words}
            <Input
              type="number"
              class="w-20"
              min={first}
              max={last}
              {value}
              onchange={(e) => typed(e, end)}
            /></label
          >
        {/each}
        <span class="small-label flex-1">or drag over all years</span>
        <Button small look="quiet" disabled={!chosen} onclick={() => range()}>All years</Button>
      </div>
    </div>
  </Popover>
{/if}
