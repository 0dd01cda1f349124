<script lang="ts">
  import type { MergeField, Side } from '$lib/core/duplicates';
  import { fieldLabel, fieldName, valueText } from '$lib/core/source';
  import type { comparePair, Picks } from '$lib/server/duplicates';
  import { dateLabel } from '../frame/dates';
  import { Button } from '../kit';
  import { parts } from './differences';

  type Comparison = Awaited<ReturnType<typeof comparePair>>;
  interface Props {
    comparison: Comparison;
    rows: Comparison['suggestions'];
    picks: Picks;
    /** The row one is in. */
    row: number;
    onpick: (field: MergeField, side: Side, row: number) => void;
  }
  /** Two sources side by side: the fields in which they differ, and which value is kept. */
  let { comparison: c, rows, picks, row, onpick }: Props = $props();

  const sideOf = (field: MergeField): Side =>
    picks[field] ?? rows.find((s) => s.field === field)?.side ?? 'a';

  const many = (n: number, one: string, several = `${one}s`) => `${n} ${n === 1 ? one : several}`;
  const label = (field: MergeField) => (field === 'type' ? 'Kind of source' : fieldLabel(field));
  const text = (field: MergeField, side: Side) => valueText(field, c[side].record[field]);
  const host = (address: string | null) => (address && URL.canParse(address) ? new URL(address).host : '');
  const from = (side: Side) =>
    host(c[side].address) || (c[side].copies.length ? 'a page' : 'a file or by hand');

  const along = (side: Side) => {
    const { passages, copies, projects } = c[side];
    return (
      [
        passages && many(passages, 'passage'),
        copies.length && many(copies.length, 'page copy', 'page copies'),
        projects && many(projects, 'project'),
      ]
        .filter(Boolean)
        .join(' · ') || 'nothing'
    );
  };
  const together = $derived.by(() => {
    const { a, b } = c;
    return `${many(a.passages + b.passages, 'passage')}, ${many(a.copies.length + b.copies.length, 'copy', 'copies')}; both citekeys keep working`;
  });
</script>

<table>
  <thead>
    <tr>
      <th></th>
      {#each ['a', 'b'] as const as side (side)}
        <th
          ><span class="small-label">From {from(side)}</span><br /><a href="/sources/{c[side].id}"
            >added {dateLabel(c[side].added)}</a
          ></th
        >
      {/each}
      <th class="small-label">Kept</th>
    </tr>
  </thead>
  <tbody>
    {#each rows as { field, side, why, check }, i (field)}
      {@const kept = sideOf(field)}
      <tr class:current={i === row}>
        <th class="small-label" scope="row">{label(field)}</th>
        {#each ['a', 'b'] as const as s (s)}
          {@const mine = text(field, s)}
          <td class:kept={kept === s}>
            <Button
              look="bare"
              aria-pressed={kept === s}
              aria-label="{label(field)}: {mine || 'nothing'}"
              onclick={() => onpick(field, s, i)}
            >
              {#if mine}{#each parts(mine, text(field, s === 'a' ? 'b' : 'a')) as part, n (n)}<span
                    class:other={part.differs && kept !== s}
                    class:more={part.differs && kept === s}>{part.text}</span
                  >{/each}{:else}–{/if}
            </Button>
          </td>
        {/each}
        <td class="reason"
          >{picks[field] && picks[field] !== side ? 'your choice' : why}{#if check && !picks[field]}, <span
              class="pencil-blue font-semibold">check</span
            >{/if}</td
        >
      </tr>
    {/each}
    {#if c.same.length}
      <tr
        ><th class="small-label" scope="row">Same in both</th><td colspan="3" class="small-label same"
          >{c.same.map((f) => fieldName(f)).join(', ')}</td
        ></tr
      >
    {/if}
    <tr>
      <th class="small-label" scope="row">Comes along</th>
      <td class="along">{along('a')}</td>
      <td class="along">{along('b')}</td>
      <td class="reason font-semibold">{together}</td>
    </tr>
  </tbody>
</table>

<style>
  table {
    width: 100%;
    border-collapse: collapse;
    table-layout: fixed;
  }
  thead th {
    padding: 6px 12px;
    border-bottom: 1px solid var(--edge);
    text-align: left;
    line-height: 1.35;
  }
  thead th:first-child {
    width: 112px;
  }
  thead th:last-child {
    width: 216px;
    vertical-align: middle;
  }
  thead a:hover {
    text-decoration: underline;
  }
  tbody th {
    padding: 8px 8px;
    text-align: left;
    vertical-align: top;
  }
  tbody tr {
    border-bottom: 1px solid var(--rule);
  }
  td {
    padding: 0;
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  td :global(button) {
    width: 100%;
    min-height: 36px;
    max-height: 130px;
    padding: 8px 12px;
    border-left: 3px solid transparent;
    color: var(--ink-3);
    text-align: left;
    cursor: pointer;
    overflow-y: auto;
  }
  td.kept :global(button) {
    border-left-color: var(--green-pencil);
    background: var(--green-soft);
    color: var(--ink);
  }
  .other {
    color: var(--ink-2);
    background: var(--red-soft);
  }
  .more {
    background: color-mix(in srgb, var(--green-pencil) 16%, transparent);
  }
  .reason,
  .along,
  .same {
    padding: 8px 12px;
  }
  .along {
    padding-left: 15px;
  }
  tr.current {
    box-shadow: inset 0 0 0 1px var(--thread);
  }
  @media (max-width: 760px) {
    thead th:first-child,
    thead th:last-child {
      width: 80px;
    }
  }
</style>
