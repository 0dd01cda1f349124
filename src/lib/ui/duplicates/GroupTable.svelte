<script lang="ts">
  import type { MergeField, Picks } from '$lib/core/duplicates';
  import { fieldLabel, fieldName, valueText } from '$lib/core/source';
  import type { GroupComparison } from '$lib/server/duplicates';
  import { dateLabel } from '../frame/dates';
  import { Button, Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from '../kit';
  import { parts } from '../frame/differences';
  import RelationSelect from './RelationSelect.svelte';
  import TypedValue from './TypedValue.svelte';

  interface Props {
    comparison: GroupComparison;
    picks: Picks;
    /** The row one is in, and whether a value is being typed in it. */
    row: number;
    typing: boolean;
    onpick: (field: MergeField, pick: number | { value: unknown }, row: number) => void;
    ontyped: () => void;
    onout: (id: string) => void;
    onrelate: (id: string, kind: string) => void;
  }
  /** The sources of a group side by side: the fields in which they differ, and which value is kept. */
  let { comparison: c, picks, row, typing, onpick, ontyped, onout, onrelate }: Props = $props();

  let agreeing = $state(false);
  const several = $derived(c.sources.length > 2);

  const many = (n: number, one: string, more = `${one}s`) => `${n} ${n === 1 ? one : more}`;
  const label = (field: MergeField) => (field === 'type' ? 'Kind of source' : fieldLabel(field));
  const text = (field: MergeField, at: number) => valueText(field, c.sources[at]?.record[field]);
  const host = (address: string | null) => (address && URL.canParse(address) ? new URL(address).host : '');
  const from = (at: number) =>
    host(c.sources[at]!.address) || (c.sources[at]!.copies.length ? 'a page' : 'a file or by hand');
  const kept = (field: MergeField, proposed: number) => picks[field] ?? proposed;

  /** What a value is held against, letter by letter: the one that is kept, or of the others the first that differs. */
  function against(field: MergeField, at: number, pick: number | { value: unknown }): string {
    if (typeof pick !== 'number') return valueText(field, pick.value);
    if (pick !== at) return text(field, pick);
    const mine = text(field, at);
    return c.sources.map((_, i) => text(field, i)).find((t) => t !== mine && t !== '') ?? mine;
  }

  const along = ({
    passages,
    copies,
    projects,
    sections,
    tags,
    notes,
    leads,
  }: GroupComparison['sources'][number]) =>
    [
      passages && many(passages, 'passage'),
      copies.length && many(copies.length, 'page copy', 'page copies'),
      projects && many(projects, 'project'),
      sections && many(sections, 'section'),
      tags && many(tags, 'tag'),
      notes && many(notes, 'note'),
      leads && many(leads, 'lead'),
    ]
      .filter(Boolean)
      .join(' · ') || 'nothing';
  const together = $derived.by(() => {
    const sum = (of: (s: GroupComparison['sources'][number]) => number) =>
      c.sources.reduce((n, s) => n + of(s), 0);
    const [passages, copies] = [sum((s) => s.passages), sum((s) => s.copies.length)];
    const hanging = [
      ...(passages ? [many(passages, 'passage')] : []),
      ...(copies ? [many(copies, 'copy', 'copies')] : []),
    ].join(', ');
    return `${hanging ? `${hanging}; ` : ''}${several ? 'all' : 'both'} citekeys keep working`;
  });
</script>

<div class="wide">
  <Table style="min-width: {112 + 216 + c.sources.length * 190}px">
    <TableHead>
      <TableHeadCell></TableHeadCell>
      {#each c.sources as source, i (source.id)}
        <TableHeadCell
          ><span class="small-label">From {from(i)} · {source.citekey}</span><br /><a
            href="/sources/{source.id}">added {dateLabel(source.added)}</a
          >{#if several}<br /><Button
              small
              look="quiet"
              class="-ml-2"
              aria-label="Keep out {source.label}, from {from(i)}"
              onclick={() => onout(source.id)}>Keep this out</Button
            >
            <div class="link-as">
              <RelationSelect
                label="Link {source.label}, from {from(i)}, with the others"
                words="Link it as…"
                onkind={(kind) => onrelate(source.id, kind)}
              />
            </div>{/if}</TableHeadCell
        >
      {/each}
      <TableHeadCell class="small-label">Kept</TableHeadCell>
    </TableHead>
    <TableBody>
      {#each c.proposals as { field, from: proposed, why, check }, i (field)}
        {@const pick = kept(field, proposed)}
        <TableBodyRow class={i === row ? 'current' : ''}>
          <TableHeadCell class="small-label" scope="row">{label(field)}</TableHeadCell>
          {#each c.sources as source, at (source.id)}
            {@const mine = text(field, at)}
            <TableBodyCell class={pick === at ? 'kept' : ''}>
              <Button
                look="bare"
                aria-pressed={pick === at}
                aria-label="{label(field)}: {mine || 'nothing'}"
                onclick={() => onpick(field, at, i)}
              >
                {#if mine}{#each parts(mine, against(field, at, pick)) as part, n (n)}<span
                      class:other={part.differs && pick !== at}
                      class:more={part.differs && pick === at}>{part.text}</span
                    >{/each}{:else}–{/if}
              </Button>
            </TableBodyCell>
          {/each}
          <TableBodyCell class="reason">
            {#if typing && i === row}
              <TypedValue
                {field}
                start={typeof pick === 'number' ? text(field, pick) : valueText(field, pick.value)}
                onvalue={(value) => onpick(field, { value }, i)}
                ondone={ontyped}
              />
            {:else if typeof pick !== 'number'}
              <span class="serif">{valueText(field, pick.value) || 'nothing'}</span>
              <span class="small-label">typed by you</span>
            {:else}
              {picks[field] !== undefined && pick !== proposed
                ? 'your choice'
                : why}{#if check && picks[field] === undefined}, <span class="pencil-blue font-semibold"
                  >check</span
                >{/if}
            {/if}
          </TableBodyCell>
        </TableBodyRow>
      {/each}
      {#if c.same.length}
        <TableBodyRow>
          <TableHeadCell class="small-label" scope="row">Same in {several ? 'all' : 'both'}</TableHeadCell>
          <TableBodyCell colspan={c.sources.length + 1} class="same">
            {#if agreeing}
              <dl>
                {#each c.same as field (field)}<dt class="small-label">{label(field)}</dt>
                  <dd>{text(field, 0)}</dd>{/each}
              </dl>
            {/if}
            <Button look="link" aria-expanded={agreeing} onclick={() => (agreeing = !agreeing)}
              >{agreeing ? 'Fold away' : c.same.map((f) => fieldName(f)).join(', ')}</Button
            >
          </TableBodyCell>
        </TableBodyRow>
      {/if}
      <TableBodyRow>
        <TableHeadCell class="small-label" scope="row">Comes along</TableHeadCell>
        {#each c.sources as source (source.id)}<TableBodyCell class="along">{along(source)}</TableBodyCell
          >{/each}
        <TableBodyCell class="reason font-semibold">{together}</TableBodyCell>
      </TableBodyRow>
    </TableBody>
  </Table>
</div>

<style>
  .link-as {
    max-width: 150px;
    padding: 2px 12px 6px 0;
  }
  /* As wide as its longest answer otherwise. */
  .link-as :global(*) {
    max-width: 100%;
  }
  .wide {
    overflow-x: auto;
  }
  .wide :global(table) {
    font-size: 14px;
    width: 100%;
    border-collapse: collapse;
    table-layout: fixed;
  }
  .wide :global(thead th) {
    font-size: 14px;
    padding: 6px 12px;
    border-bottom: 1px solid var(--edge);
    text-align: left;
    line-height: 1.35;
    vertical-align: top;
  }
  .wide :global(thead th:first-child) {
    width: 112px;
  }
  .wide :global(thead th:last-child) {
    width: 216px;
  }
  .wide :global(thead a:hover) {
    text-decoration: underline;
  }
  .wide :global(tbody th) {
    padding: 8px 8px;
    text-align: left;
    vertical-align: top;
  }
  .wide :global(tbody tr) {
    border-bottom: 1px solid var(--rule);
  }
  .wide :global(td) {
    padding: 0;
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  .wide :global(td:not(.reason, .same) button) {
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
  .wide :global(td.kept:not(.reason) button) {
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
  .wide :global(:is(.reason, .along, .same)) {
    padding: 8px 12px;
  }
  .wide :global(.along) {
    padding-left: 15px;
  }
  dl {
    display: grid;
    grid-template-columns: 130px 1fr;
    gap: 3px 12px;
    margin-bottom: 6px;
  }
  .wide :global(tr.current) {
    box-shadow: inset 0 0 0 1px var(--thread);
  }
</style>
