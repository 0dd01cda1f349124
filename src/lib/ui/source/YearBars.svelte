<script lang="ts">
  import { Button } from '../kit';
  /** How many sources there are by year, in up to twenty steps; choosing a step narrows to it. */
  let {
    years,
    from,
    to,
    onrange,
  }: {
    years: { year: number; n: number }[];
    from: string;
    to: string;
    onrange: (from?: string, to?: string) => void;
  } = $props();

  const STEPS = 20;
  // Years before most of the sources would squeeze the rest into one bar, so bars hold like numbers of distinct years.
  const bars = $derived.by(() => {
    const size = Math.max(1, Math.ceil(years.length / STEPS));
    const out: { from: number; to: number; n: number }[] = [];
    for (let i = 0; i < years.length; i += size) {
      const part = years.slice(i, i + size);
      out.push({
        from: part[0]!.year,
        to: part[part.length - 1]!.year,
        n: part.reduce((sum, y) => sum + y.n, 0),
      });
    }
    return out;
  });
  const most = $derived(Math.max(1, ...bars.map((b) => b.n)));
  const on = (bar: { from: number; to: number }) =>
    (!from || bar.to >= Number(from)) && (!to || bar.from <= Number(to));

  function choose(bar: { from: number; to: number }, event: MouseEvent) {
    if (event.shiftKey && from)
      onrange(String(Math.min(Number(from), bar.from)), String(Math.max(Number(to), bar.to)));
    else if (from === String(bar.from) && to === String(bar.to)) onrange();
    else onrange(String(bar.from), String(bar.to));
  }
  const span = (bar: { from: number; to: number }) =>
    bar.from === bar.to ? String(bar.from) : `${bar.from}–${bar.to}`;
</script>

{#if bars.length > 1}
  <div class="years" role="group" aria-label="Years">
    <div class="bars">
      {#each bars as bar (bar.from)}
        <Button
          look="bare"
          class={[on(bar) && 'on']}
          aria-pressed={Boolean(from) && on(bar)}
          title="{span(bar)}: {bar.n} (shift: as far as here)"
          aria-label="{span(bar)}: {bar.n} sources"
          onclick={(e) => choose(bar, e)}
        >
          <span style="height: {Math.max(3, (bar.n / most) * 30)}px"></span>
        </Button>
      {/each}
    </div>
    <div class="ends">
      <span>{bars[0]!.from}</span>{#if from}<strong>{from === to ? from : `${from}–${to}`}</strong>{/if}<span
        >{bars[bars.length - 1]!.to}</span
      >
    </div>
  </div>
{/if}

<style>
  .years {
    width: 190px;
  }
  .bars {
    display: flex;
    gap: 1px;
  }
  .bars :global(button) {
    display: flex;
    flex: 1;
    align-items: flex-end;
    height: 32px;
    cursor: pointer;
  }
  .bars :global(span) {
    width: 100%;
    border-radius: 1px 1px 0 0;
    background: color-mix(in srgb, var(--ink-3) 45%, transparent);
  }
  .bars :global(.on span) {
    background: var(--thread);
  }
  .bars :global(button:hover span) {
    filter: brightness(1.25);
  }
  .ends {
    display: flex;
    justify-content: space-between;
    color: var(--ink-3);
    font-size: 11px;
    line-height: 1.3;
  }
  strong {
    color: var(--thread);
  }
</style>
