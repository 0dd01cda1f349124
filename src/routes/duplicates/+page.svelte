<script lang="ts">
  import { Button, Empty, PageHead } from '$lib/ui/kit';
  import { untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { fieldLabel, fieldName, valueText } from '$lib/core/source';
  import type { MergeField, Side } from '$lib/core/duplicates';
  import type { ShownReference } from '$lib/server/lists';
  import Reference from '$lib/ui/source/Reference.svelte';
  import { offer, keyFor } from '$lib/ui/frame/actions.svelte';
  import { call, isTyping } from '$lib/ui/frame/client';
  import { dateLabel } from '$lib/ui/frame/dates';
  import { parts } from '$lib/ui/duplicates/differences';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { attempt, done, doneWithUndo } from '$lib/ui/frame/toasts.svelte';

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
  const sideOf = (field: MergeField): Side =>
    picks[field] ?? rows.find((s) => s.field === field)?.side ?? 'a';

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

  const label = (field: MergeField) => (field === 'type' ? 'Kind of source' : fieldLabel(field));
  const text = (field: MergeField, side: Side) => valueText(field, data.comparison![side].record[field]);
  function pick(field: MergeField, side: Side) {
    picks = { ...picks, [field]: side };
  }
  const host = (address: string | null) => (address && URL.canParse(address) ? new URL(address).host : '');
  const from = (side: Side) =>
    host(data.comparison![side].address) ||
    (data.comparison![side].copies.length ? 'a page' : 'a file or by hand');

  const many = (n: number, one: string, several = `${one}s`) => `${n} ${n === 1 ? one : several}`;
  const along = (side: Side) => {
    const { passages, copies, projects } = data.comparison![side];
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
    if (!data.comparison) return '';
    const { a, b } = data.comparison;
    return `${many(a.passages + b.passages, 'passage')}, ${many(a.copies.length + b.copies.length, 'copy', 'copies')}; both citekeys keep working`;
  });

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

  async function notApart({ a, b }: { a: string; b: string }) {
    await attempt(async () => {
      await call('POST', '/api/duplicates', { act: 'not-apart', a, b });
      done('They are compared again.');
    });
    await renewed();
  }

  async function undo(id: string) {
    await attempt(async () => {
      await call('POST', `/api/merges/${id}/undo`, {});
      done('The merge is undone. Both sources are as they were.');
    });
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

{#if undoing && data.merges.length}
  <ul class="merges">
    {#each data.merges as merge (merge.id)}
      <li>
        <span class="serif">{merge.label}</span>
        <span class="small-label">took in {merge.citekey}, {dateLabel(merge.at)}</span>
        <Button small onclick={() => undo(merge.id)}>Undo</Button>
      </li>
    {/each}
  </ul>
{/if}

{#if apartShown && data.apart.length}
  <ul class="merges" aria-label="Kept apart">
    {#each data.apart as kept (kept.a + kept.b)}
      <li>
        <span class="serif">{kept.labels[0]} <span class="small-label">and</span> {kept.labels[1]}</span>
        <span class="small-label">{dateLabel(kept.at)}</span>
        <Button small onclick={() => notApart(kept)}>Compare again</Button>
      </li>
    {/each}
  </ul>
{/if}

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
                  onclick={() => {
                    row = i;
                    pick(field, s);
                  }}
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
  .merges {
    padding: 8px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
  }
  .merges li {
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 3px 0;
  }
  @media (max-width: 760px) {
    thead th:first-child,
    thead th:last-child {
      width: 80px;
    }
  }
</style>
