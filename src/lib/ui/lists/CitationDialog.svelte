<script lang="ts">
  import { Button, Checkbox, Dialog, Input, Search, Select } from '../kit';
  import { untrack } from 'svelte';
  import { ArrowDownOutline, ArrowUpOutline, CloseOutline } from 'flowbite-svelte-icons';
  import { LOCATOR_LABELS, locatorName, type Locator } from '$lib/core/passages';
  import type { SourceItem } from '$lib/server/sources';
  import { citing } from './citing.svelte';
  import { call, copyText, debounce } from '../frame/client';
  import { attempt, done } from '../frame/toasts.svelte';

  let { style }: { style: string } = $props();
  interface Row {
    id: string;
    name: string;
    label: Locator['label'];
    locator: string;
    prefix: string;
    suffix: string;
    withoutAuthor: boolean;
  }
  let rows = $state<Row[]>([]);
  let named = $state(false);
  let printed = $state<{ html: string; text: string } | undefined>();
  /** Why it does not print. */
  let failure = $state('');
  let wanted = $state('');
  let found = $state<SourceItem[]>([]);
  let asked = 0;

  const rowOf = (id: string, name: string, locator?: Locator | null): Row => ({
    id,
    name,
    label: locator?.label ?? 'page',
    locator: locator?.value ?? '',
    prefix: '',
    suffix: '',
    withoutAuthor: false,
  });

  $effect(() => {
    if (!citing.open) return;
    untrack(() => {
      rows = citing.works.map((w) => rowOf(w.id, w.name, w.locator));
      [named, printed, failure, wanted, found] = [false, undefined, '', '', []];
    });
  });

  const print = debounce(async () => {
    const mine = ++asked;
    if (rows.length === 0) return ([printed, failure] = [undefined, '']);
    const works = rows.map(({ name: _name, ...row }) => row);
    try {
      const answer = await call<{ html: string; text: string; labels: Record<string, string> }>(
        'POST',
        '/api/citations',
        { works, named },
      );
      if (mine !== asked) return;
      [printed, failure] = [answer, ''];
      for (const row of rows) row.name ||= answer.labels[row.id] ?? '';
    } catch (error) {
      if (mine === asked) [printed, failure] = [undefined, (error as Error).message];
    }
  }, 120);
  $effect(() => {
    JSON.stringify([rows, named]);
    if (citing.open) untrack(print);
  });

  const search = debounce(async () => {
    const q = wanted.trim();
    const answer = q
      ? await attempt(() => call<{ items: SourceItem[] }>('GET', `/api/sources?q=${encodeURIComponent(q)}`))
      : undefined;
    found = (answer?.items ?? []).filter((i) => !rows.some((r) => r.id === i.id)).slice(0, 6);
  }, 150);

  function add(item: SourceItem) {
    rows = [...rows, rowOf(item.id, item.label)];
    [wanted, found] = ['', []];
  }
  function move(at: number, by: number) {
    const list = [...rows];
    const [row] = list.splice(at, 1);
    list.splice(at + by, 0, row!);
    rows = list;
  }
  const copy = (rich: boolean) =>
    attempt(async () => {
      await copyText(printed!.text, rich ? printed!.html.replace(/ ?data-field="[^"]*"/g, '') : undefined);
      done('The citation is on the clipboard.');
      citing.open = false;
    });
</script>

<Dialog bind:open={citing.open} title="Cite in the text" size="lg">
  <p class="printed serif" aria-live="polite" aria-label="As it prints">
    {#if failure}<span class="pencil-red">{failure}</span>{:else}{@html printed?.html ??
        (rows.length ? 'Printing…' : '…')}{/if}
  </p>
  <p class="small-label">{style}. The style puts several works in its own order where it has one.</p>
  <ol class="works" aria-label="Works cited">
    {#each rows as row, i (row.id)}
      <li>
        <div class="line">
          <span class="serif name">{row.name}</span>
          <label class="leave"
            ><Checkbox bind:checked={row.withoutAuthor} disabled={named && i === 0} /> without the author</label
          >
          <Button
            small
            look="quiet"
            aria-label="Move up {row.name}"
            disabled={i === 0}
            onclick={() => move(i, -1)}><ArrowUpOutline size="xs" /></Button
          >
          <Button
            small
            look="quiet"
            aria-label="Move down {row.name}"
            disabled={i === rows.length - 1}
            onclick={() => move(i, 1)}><ArrowDownOutline size="xs" /></Button
          >
          <Button
            small
            look="quiet"
            aria-label="Take out {row.name}"
            onclick={() => (rows = rows.filter((r) => r !== row))}><CloseOutline size="xs" /></Button
          >
        </div>
        <div class="line">
          <Input aria-label="Before {row.name}" placeholder="see" bind:value={row.prefix} />
          <Select aria-label="Kind of place in {row.name}" bind:value={row.label}>
            {#each LOCATOR_LABELS as label (label)}<option value={label}>{locatorName(label)}</option>{/each}
          </Select>
          <Input aria-label="Place in {row.name}" placeholder="7–9" bind:value={row.locator} />
          <Input aria-label="After {row.name}" placeholder="emphasis added" bind:value={row.suffix} />
        </div>
      </li>
    {/each}
  </ol>
  <div class="more">
    <Search
      class="w-full"
      aria-label="Another work"
      placeholder="Another work: words of its author or title"
      bind:value={wanted}
      oninput={search}
    />
    {#if found.length}
      <ul aria-label="Found">
        {#each found as item (item.id)}<li>
            <Button look="bare" onclick={() => add(item)}><b>{item.label}</b> {item.title}</Button>
          </li>{/each}
      </ul>
    {/if}
  </div>
  <div class="line">
    <label><Checkbox bind:checked={named} /> the sentence names the author of the first</label>
    <span class="flex-1"></span>
    <Button disabled={!printed} onclick={() => copy(false)}>Copy plain</Button>
    <Button look="main" disabled={!printed} onclick={() => copy(true)}>Copy</Button>
  </div>
</Dialog>

<style>
  .printed {
    min-height: 1.5em;
    font-size: 19px;
  }
  .works {
    display: grid;
    gap: 8px;
  }
  .works li {
    display: grid;
    gap: 6px;
    padding: 8px 10px;
    border: 1px solid var(--rule);
    border-radius: 7px;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
  }
  .line > :global(:is(.place, input:not([type]))) {
    flex: 1 1 90px;
    width: auto;
    min-width: 0;
  }
  .name {
    flex: 1;
    font-size: 16px;
    font-weight: 600;
  }
  .leave {
    font-size: 13px;
  }
  .more ul {
    border: 1px solid var(--rule);
    border-radius: 7px;
  }
  .more li :global(button) {
    width: 100%;
    padding: 6px 10px;
    text-align: left;
    cursor: pointer;
  }
  .more li :global(button:hover) {
    background: var(--row-chosen);
  }
</style>
