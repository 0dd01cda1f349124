<script lang="ts">
  import type { ApexOptions } from 'apexcharts';
  import { onMount } from 'svelte';

  interface Props {
    /** What it shows, for those who do not see it. */
    label: string;
    /** In pixels. */
    height: number;
    /** What it shows and how, in the words of ApexCharts; colours may name our tokens, such as `--thread`. */
    options: ApexOptions;
  }
  /** A chart, in our type and colours. What it does by the pointer must be done beside it by keys too. */
  let { label, height, options }: Props = $props();
  let place: HTMLElement | undefined = $state();
  let chart: import('apexcharts') | undefined;

  /** A value with the names of our colours as they are in the present mode. */
  function coloured<T>(value: T, style: CSSStyleDeclaration): T {
    if (typeof value === 'string' && value.startsWith('--')) return style.getPropertyValue(value).trim() as T;
    if (Array.isArray(value)) return value.map((v: unknown) => coloured(v, style)) as T;
    if (value && typeof value === 'object' && Object.getPrototypeOf(value) === Object.prototype)
      return Object.fromEntries(
        Object.entries(value).map(([k, v]) => [k, coloured(v as unknown, style)]),
      ) as T;
    return value;
  }

  const whole = (given: ApexOptions): ApexOptions => {
    const style = getComputedStyle(place!);
    return coloured(
      {
        ...given,
        chart: {
          height,
          animations: { enabled: false },
          background: 'transparent',
          foreColor: '--ink-2',
          fontFamily: style.fontFamily,
          zoom: { enabled: false },
          ...given.chart,
        },
        colors: given.colors ?? ['--thread'],
        grid: { borderColor: '--rule', ...given.grid },
        dataLabels: { enabled: false, ...given.dataLabels },
      } as ApexOptions,
      style,
    );
  };

  onMount(() => {
    let gone = false;
    void import('apexcharts').then(async ({ default: ApexCharts }) => {
      if (gone || !place) return;
      chart = new ApexCharts(place, whole(options));
      await chart.render();
    });
    // Colours are read when it is drawn: light or dark, it is drawn anew.
    const turned = new MutationObserver(() => void chart?.updateOptions(whole(options), false, false));
    turned.observe(document.documentElement, { attributeFilter: ['class'] });
    return () => {
      gone = true;
      turned.disconnect();
      chart?.destroy();
    };
  });
  $effect(() => {
    const given = options;
    if (chart) void chart.updateOptions(whole(given), false, false);
  });
</script>

<div bind:this={place} role="img" aria-label={label} style:min-height="{height}px"></div>
