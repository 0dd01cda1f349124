<script lang="ts">
  import { untrack } from 'svelte';
  import { dndzone } from 'svelte-dnd-action';
  import type { Ballot } from '$lib/core/choosing';
  import type { Candidate, Choice } from '$lib/server/choosing';
  import { call } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button } from '../kit';

  /** Everything that is chosen among, to be put in one’s own order: by dragging, or by Alt and the arrows. */
  let { choice, ballot, self }: { choice: Choice; ballot: Ballot; self: string } = $props();
  const begun = $derived(`order ${choice.id}`);
  const handedIn = $derived(
    ballot.votes
      .filter((vote) => vote.person === self && vote.place !== null)
      .sort((a, b) => a.place! - b.place!)
      .map((vote) => vote.candidate),
  );
  const inOrder = (order: readonly string[]): Candidate[] => {
    const place = new Map(order.map((id, i) => [id, i]));
    return [...choice.among].sort(
      (a, b) => (place.get(a.id) ?? Infinity) - (place.get(b.id) ?? Infinity) || 0,
    );
  };
  let rows = $state.raw(untrack(() => inOrder(drafts.find<string[]>(begun) ?? handedIn)));
  $effect(() => {
    // What came or went meanwhile does so here too; the order one is at stays.
    const order = untrack(() => rows.map(({ id }) => id));
    rows = inOrder(order);
  });
  const same = $derived(handedIn.join() === rows.map(({ id }) => id).join());
  const keep = () =>
    drafts.keep(
      begun,
      rows.map(({ id }) => id),
    );
  let list: HTMLElement | undefined = $state();

  function move(at: number, to: number) {
    if (to < 0 || to >= rows.length) return;
    const next = [...rows];
    next.splice(to, 0, ...next.splice(at, 1));
    rows = next;
    keep();
    requestAnimationFrame(() => (list?.children[to] as HTMLElement | undefined)?.focus());
  }
  function onkeydown(event: KeyboardEvent, at: number) {
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.altKey) move(at, at + by);
    else (list?.children[at + by] as HTMLElement | undefined)?.focus();
  }
  async function handIn() {
    const order = rows.map(({ id }) => id);
    const made = await attempt(async () => {
      await call('POST', `/api/choices/${choice.id}/votes`, { order });
      return true;
    });
    if (!made) return;
    drafts.drop(begun);
    done('Your order is handed in. You see now what comes of it.');
  }
</script>

<div class="ordering">
  <p class="words">
    The best first. Drag, or press Alt with the arrows on a line. What others think is hidden until you have
    handed in your order; you may change it afterwards.
  </p>
  <ol
    bind:this={list}
    aria-label="Your order"
    use:dndzone={{
      items: rows,
      flipDurationMs: 120,
      dropTargetStyle: {},
      dropTargetClasses: ['dropping'],
      zoneTabIndex: -1,
    }}
    onconsider={(e) => (rows = e.detail.items)}
    onfinalize={(e) => {
      rows = e.detail.items;
      keep();
    }}
  >
    {#each rows as row, i (row.id)}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
      <li tabindex="0" aria-label="{i + 1}: {row.headline}" onkeydown={(event) => onkeydown(event, i)}>
        <span class="place">{i + 1}</span>
        <span class="name serif">{row.headline}</span>
        <Button look="icon" aria-label="Up" disabled={i === 0} onclick={() => move(i, i - 1)}>↑</Button>
        <Button look="icon" aria-label="Down" disabled={i === rows.length - 1} onclick={() => move(i, i + 1)}
          >↓</Button
        >
      </li>
    {/each}
  </ol>
  <p class="foot">
    <Button look="main" disabled={handedIn.length > 0 && same} onclick={handIn}
      >{handedIn.length ? 'Hand in the new order' : 'Hand in this order'}</Button
    >
    {#if handedIn.length && same}<span class="small-label">This is the order you handed in.</span>{/if}
  </p>
</div>

<style>
  .ordering {
    flex: 1;
    min-height: 0;
    padding: 14px 26px 60px;
    overflow-y: auto;
  }
  .words {
    max-width: 68ch;
    margin-bottom: 10px;
    color: var(--ink-2);
  }
  ol {
    max-width: 860px;
  }
  ol:global(.dropping) {
    background: var(--row-chosen);
  }
  li {
    display: flex;
    gap: 12px;
    align-items: center;
    min-height: 42px;
    padding: 5px 8px;
    border-bottom: 1px solid var(--rule);
    background: var(--page);
    cursor: grab;
  }
  .place {
    flex: none;
    width: 28px;
    color: var(--ink-3);
    font-size: 13px;
    font-weight: 650;
    text-align: right;
  }
  .name {
    flex: 1;
    min-width: 0;
    font-size: 16px;
    line-height: 1.35;
    overflow-wrap: anywhere;
  }
  .foot {
    display: flex;
    gap: 12px;
    align-items: center;
    margin-top: 16px;
  }
</style>
