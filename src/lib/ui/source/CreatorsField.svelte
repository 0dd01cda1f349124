<script lang="ts">
  import { Button, Input } from '../kit';
  import { fromAction } from 'svelte/attachments';
  import { dndzone } from 'svelte-dnd-action';
  import { ArrowDownOutline, ArrowUpOutline, CloseOutline } from 'flowbite-svelte-icons';
  import { fieldLabel, nameText, parseNames, type CslName, type NameVariable } from '$lib/core/source';

  import { typeahead } from './typeahead';

  interface Props {
    role: NameVariable;
    names: CslName[];
    /** Called with the whole list when it changed. */
    onchange: (names: CslName[]) => void;
    id: string;
  }
  let { role, names, onchange, id }: Props = $props();

  interface Row {
    id: number;
    name: CslName;
  }
  let next = 0;
  let rows: Row[] = $state([]);
  let adding = $state('');
  /** Rows whose particle and suffix are shown though they are empty. */
  let wide = $state<number[]>([]);
  let last = '';

  $effect(() => {
    const given = JSON.stringify(names);
    if (given === last) return;
    last = given;
    rows = names.map((name) => ({ id: next++, name: { ...name } }));
  });

  /** Names without empty parts; a row with nothing in it is gone. */
  const clean = () =>
    rows
      .map(
        ({ name }) =>
          Object.fromEntries(Object.entries(name).filter(([, v]) => v !== '' && v !== undefined)) as CslName,
      )
      .filter((n) => n.family || n.given || n.literal);

  function commit() {
    const value = clean();
    const text = JSON.stringify(value);
    if (text === last) return;
    last = text;
    onchange(value);
  }

  function move(at: number, by: number) {
    const to = at + by;
    if (to < 0 || to >= rows.length) return;
    const list = [...rows];
    const [row] = list.splice(at, 1);
    list.splice(to, 0, row!);
    rows = list;
    commit();
  }

  function add() {
    const found = parseNames(adding);
    if (found.length === 0) return;
    rows = [...rows, ...found.map((name) => ({ id: next++, name }))];
    adding = '';
    commit();
  }

  function turn(row: Row) {
    row.name = row.name.literal ? (parseNames(row.name.literal)[0] ?? {}) : { literal: nameText(row.name) };
    if (row.name.literal === undefined && row.name.family === undefined) row.name = { family: '' };
    commit();
  }
</script>

<div class="creators" data-field={role}>
  {#if rows.length}
    <ol
      use:dndzone={{
        items: rows,
        flipDurationMs: 120,
        dropTargetStyle: {},
        dropTargetClasses: ['dropping'],
        type: role,
      }}
      onconsider={(e) => (rows = e.detail.items)}
      onfinalize={(e) => {
        rows = e.detail.items;
        commit();
      }}
      aria-label={fieldLabel(role)}
    >
      {#each rows as row, i (row.id)}
        <li>
          {#if row.name.literal !== undefined}
            <Input
              aria-label="Name {i + 1}"
              placeholder="Whole name"
              bind:value={row.name.literal}
              onchange={commit}
            />
          {:else}
            {#if row.name['non-dropping-particle'] || wide.includes(row.id)}<Input
                class="particle"
                aria-label="Particle {i + 1}"
                placeholder="van der"
                title="Particle"
                bind:value={row.name['non-dropping-particle']}
                onchange={commit}
              />{/if}
            <Input
              aria-label="Family name {i + 1}"
              placeholder="Family name"
              bind:value={row.name.family}
              onchange={commit}
            />
            <Input
              aria-label="Given names {i + 1}"
              placeholder="Given names"
              bind:value={row.name.given}
              onchange={commit}
            />
            {#if row.name.suffix || wide.includes(row.id)}<Input
                class="suffix"
                aria-label="Suffix {i + 1}"
                placeholder="Jr."
                title="Suffix"
                bind:value={row.name.suffix}
                onchange={commit}
              />{/if}
          {/if}
          <span class="acts">
            {#if row.name.literal === undefined && !wide.includes(row.id)}
              <Button
                look="icon"
                title="Particle and suffix: van der, Jr."
                aria-label="Particle and suffix of {nameText(row.name)}"
                onclick={() => (wide = [...wide, row.id])}>…</Button
              >
            {/if}
            <Button
              small
              look="quiet"
              title={row.name.literal !== undefined
                ? 'This is a person with family and given name'
                : 'This is an institution or a single name'}
              onclick={() => turn(row)}
              >{row.name.literal !== undefined ? 'As a person' : 'As one name'}</Button
            >
            <Button look="icon" aria-label="Move up" disabled={i === 0} onclick={() => move(i, -1)}
              ><ArrowUpOutline size="xs" /></Button
            >
            <Button
              look="icon"
              aria-label="Move down"
              disabled={i === rows.length - 1}
              onclick={() => move(i, 1)}><ArrowDownOutline size="xs" /></Button
            >
            <Button
              look="icon"
              aria-label="Remove {nameText(row.name)}"
              onclick={() => {
                rows = rows.filter((r) => r !== row);
                commit();
              }}><CloseOutline size="xs" /></Button
            >
          </span>
        </li>
      {/each}
    </ol>
  {/if}
  <Input
    {id}
    {@attach fromAction(typeahead, () => 'people')}
    class="add"
    placeholder="Add: Family, Given; or several, separated by ;"
    bind:value={adding}
    onchange={add}
    onkeydown={(e) => {
      if (e.key === 'Enter') {
        e.preventDefault();
        add();
      }
    }}
  />
</div>

<style>
  ol {
    display: grid;
    gap: 4px;
    margin-bottom: 4px;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px;
    background: var(--page);
  }
  li > :global(input) {
    flex: 1 1 76px;
    min-width: 0;
  }
  li > :global(.particle) {
    flex: 0 1 70px;
  }
  li > :global(.suffix) {
    flex: 0 1 48px;
  }
  .creators :global(input::placeholder) {
    color: color-mix(in srgb, var(--ink-3) 70%, transparent);
  }
  .acts {
    display: flex;
    flex: none;
    align-items: center;
    margin-left: auto;
    color: var(--ink-3);
  }
  .creators > :global(.add) {
    border-style: dashed;
  }
</style>
