<script lang="ts">
  import { Button, Empty, PageHead } from '$lib/ui/kit';
  import { untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import type { MergeField, Side } from '$lib/core/duplicates';
  import type { ShownReference } from '$lib/server/lists';
  import Reference from '$lib/ui/source/Reference.svelte';
  import { offer, keyFor } from '$lib/ui/frame/actions.svelte';
  import { call, isTyping } from '$lib/ui/frame/client';
  import Decided from '$lib/ui/duplicates/Decided.svelte';
  import PairTable from '$lib/ui/duplicates/PairTable.svelte';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { attempt, doneWithUndo } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();
  let picks = $state<Partial<Record<MergeField, Side>>>({});
  let preview = $state<ShownReference | undefined>();
  let row = $state(0);
  let undoing = $state(false);
  let apartShown = $state(false);
  let busy = $state(false);
  let shownPair = '';

  const pair = $derived(data.pairs[data.at]);
  const rows = $derived(data.comparison?.suggestions ?? []);
  $effect(() => {
    const key = pair ? `${pair.a} ${pair.b} ${data.bases?.join()}` : '';
    untrack(() => {
      if (key === shownPair) return;
      shownPair = key;
      picks = {};
      row = 0;
      preview = undefined;
    });
  });
  let asked = 0;
  $effect(() => {
    if (!pair) return;
    const { a, b } = pair;
    const chosen = $state.snapshot(picks);
    const mine = ++asked;
    void attempt(async () => {
      const printed = await call<ShownReference>('POST', '/api/duplicates/merged', {
        a,
        b,
        picks: chosen,
      });
      if (mine === asked) preview = printed;
    });
  });

  function pick(field: MergeField, side: Side) {
    picks = { ...picks, [field]: side };
  }
  const many = (n: number, one: string, several = `${one}s`) => `${n} ${n === 1 ? one : several}`;

  async function go(to: number) {
    const next = data.pairs[((to % data.pairs.length) + data.pairs.length) % data.pairs.length];
    if (next)
      await goto(`/duplicates?a=${next.a}&b=${next.b}`, {
        replaceState: true,
        noScroll: true,
        keepFocus: true,
      });
  }

  async function merge() {
    if (!pair || !data.bases || busy) return;
    busy = true;
    const { a, b } = pair;
    const made = await attempt(() =>
      call<{ merge: string }>('POST', '/api/duplicates', {
        act: 'merge',
        a,
        b,
        picks: $state.snapshot(picks),
        bases: data.bases,
      }),
    );
    busy = false;
    if (made) doneWithUndo('Merged into one.', () => call('POST', `/api/merges/${made.merge}/undo`, {}));
    await renewed();
  }

  async function apart() {
    if (!pair) return;
    const { a, b } = pair;
    if (!(await attempt(() => call('POST', '/api/duplicates', { act: 'apart', a, b })))) return;
    doneWithUndo('Kept apart. They will not be suggested again.', () =>
      call('POST', '/api/duplicates', { act: 'not-apart', a, b }),
    );
    await renewed();
  }

  offer(() =>
    pair
      ? {
          'duplicates merge': () => void merge(),
          'duplicates apart': () => void apart(),
          'duplicates later': () => void go(data.at + 1),
        }
      : {},
  );

  function onkey(event: KeyboardEvent) {
    if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey || !pair) return;
    const field = rows[row]?.field;
    const acts: Record<string, (() => void) | undefined> = {
      ArrowDown: () => (row = Math.min(rows.length - 1, row + 1)),
      ArrowUp: () => (row = Math.max(0, row - 1)),
      ArrowLeft: field && (() => pick(field, 'a')),
      ArrowRight: field && (() => pick(field, 'b')),
    };
    const act = acts[event.key];
    if (act) {
      event.preventDefault();
      act();
    }
  }
</script>

<svelte:head><title>Duplicates · Retexa</title></svelte:head>
<svelte:window onkeydown={onkey} />

<PageHead>
  <h1>Duplicates</h1>
  <span class="sub"
    >{data.total
      ? `${data.first + data.at + 1} of ${data.total.toLocaleString('en')} · surest first`
      : 'none suspected'}</span
  >
  <span class="flex-1"></span>
  {#if data.merges.length}<Button look="chip" aria-expanded={undoing} onclick={() => (undoing = !undoing)}
      >{many(data.merges.length, 'merge')} can be undone</Button
    >{/if}
  {#if data.apart.length}<Button
      look="chip"
      aria-expanded={apartShown}
      onclick={() => (apartShown = !apartShown)}>{many(data.apart.length, 'pair')} kept apart</Button
    >{/if}
</PageHead>

<Decided merges={undoing ? data.merges : []} apart={apartShown ? data.apart : []} />

{#if !pair || !data.comparison}
  <Empty>
    <h2>Nothing twice</h2>
    <p>
      When two sources look like one work, they are set side by side here: the same identifier, or the same
      title, year and first author. Editions, volumes and notices that share a title are left alone.
    </p>
  </Empty>
{:else}
  {@const c = data.comparison}
  <div class="body">
    <p class="why">
      <strong>{pair.verdict === 'same' ? 'Almost surely the same' : 'Likely the same'}</strong>
      {pair.reasons.join(' · ')}
    </p>
    <PairTable
      comparison={c}
      {rows}
      {picks}
      {row}
      onpick={(field, side, i) => {
        row = i;
        pick(field, side);
      }}
    />
    <section class="prints" aria-label="As it will print">
      <p class="small-label">As it will print</p>
      <Reference reference={preview} fallback="Printing…" />
    </section>
    <p class="acts">
      <Button look="main" keys={keyFor('duplicates merge')} onclick={merge} disabled={busy}
        >Merge into one</Button
      >
      <Button keys={keyFor('duplicates apart')} onclick={apart}>Keep apart</Button>
      <Button
        keys={keyFor('duplicates later')}
        onclick={() => go(data.at + 1)}
        disabled={data.pairs.length < 2}>Decide later</Button
      >
      <span class="flex-1"></span>
      <span class="small-label">↑ ↓ row · ← → choose a value</span>
    </p>
  </div>
{/if}

<style>
  .body {
    padding: 12px 26px 30px;
  }
  .why {
    margin-bottom: 12px;
    color: var(--ink-2);
    font-size: 13.5px;
  }
  .why strong {
    margin-right: 6px;
    padding: 4px 10px;
    border-radius: 4px;
    background: var(--thread-soft);
    color: var(--ink);
  }
  .prints {
    margin: 14px 0;
    padding: 12px 20px 14px;
    border: 1px solid var(--edge);
    border-left: 4px solid var(--green-pencil);
    border-radius: 8px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 10px;
  }
</style>
