<script lang="ts">
  import { FileLinesOutline, QuoteOutline } from 'flowbite-svelte-icons';
  import { tick } from 'svelte';
  import type { SourceItem } from '$lib/server/sources';
  import { Button } from '../kit';
  import { toggled } from '$lib/core/query';
  import { narrowTo, queried } from '../frame/narrowing';
  import { PRIORITY_NAMES, READING_NAMES } from './naming';
  import { signOf } from './findings';
  import Sign, { type SignName } from './Sign.svelte';
  import TagName from './TagName.svelte';

  /**
   * What stands in the margin of a reference, side by side and no higher than the reference: findings and questions, then
   * what hangs on it. What has no room is one count, which opens.
   */
  let { item, tabindex = 0 }: { item: SourceItem; tabindex?: number } = $props();
  const twice = $derived(item.twice && `/duplicates?with=${item.id}`);

  interface Mark {
    key: string;
    text: string;
    pencil: 'red' | 'blue' | 'green' | 'none';
    sign?: SignName;
    href?: string;
    tag?: string;
    has?: 'passages' | 'copies';
  }
  const marks = $derived.by((): Mark[] => {
    const list: Mark[] = item.findings.map((f) => ({
      key: f.check + (f.field ?? ''),
      text: f.message,
      pencil: f.pencil === 'red' ? 'red' : 'blue',
      sign: signOf(f),
    }));
    if (twice)
      list.push({ key: 'twice', text: 'Twice in the library?', pencil: 'blue', sign: 'twice', href: twice });
    if (!item.checked)
      list.push({
        key: 'unchecked',
        text: 'Not checked yet',
        pencil: 'blue',
        sign: 'question',
        href: `/intake?at=${item.id}`,
      });
    if (list.length === 0)
      list.push({ key: 'complete', text: 'Prints complete', pencil: 'green', sign: 'check' });
    if (item.passages)
      list.push({ key: 'passages', text: String(item.passages), pencil: 'none', has: 'passages' });
    const { state, priority } = item.reading ?? {};
    const percent = item.read === undefined ? '' : `${Math.round(item.read * 100)} % read`;
    if (state)
      list.push({
        key: 'state',
        text: percent && state === 'reading' ? `${READING_NAMES[state]}, ${percent}` : READING_NAMES[state],
        pencil: 'none',
      });
    else if (percent) list.push({ key: 'read', text: percent, pencil: 'none' });
    if (priority) list.push({ key: 'priority', text: PRIORITY_NAMES[priority], pencil: 'none' });
    if (item.copies) list.push({ key: 'copies', text: String(item.copies), pencil: 'none', has: 'copies' });
    list.push(...item.tags.map((tag): Mark => ({ key: `tag ${tag}`, text: tag, pencil: 'none', tag })));
    return list;
  });

  let room: HTMLElement | undefined = $state();
  /** How many marks have room. */
  let fits = $state(Infinity);
  let open = $state(false);
  const left = $derived(Math.max(0, marks.length - fits));

  async function look() {
    fits = Infinity;
    await tick();
    if (!room) return;
    const inside = [...room.querySelectorAll<HTMLElement>(':scope > [data-mark]')];
    const low = room.clientHeight;
    let n = inside.findIndex((mark) => mark.offsetTop + mark.offsetHeight > low + 1);
    // The count needs its own place at the end of the last line.
    if (n > 1) {
      const last = inside[n - 1]!;
      if (last.offsetLeft + last.offsetWidth > room.clientWidth - 34) n -= 1;
    }
    fits = n === -1 ? Infinity : Math.max(1, n);
  }
  $effect(() => {
    void marks;
    if (!room) return;
    const watch = new ResizeObserver(() => void look());
    watch.observe(room);
    return () => watch.disconnect();
  });
</script>

{#snippet shown(mark: Mark)}
  {#if mark.sign}<Sign sign={mark.sign} />{/if}
  {#if mark.has === 'passages'}<QuoteOutline size="xs" ariaLabel="Passages" />
  {:else if mark.has === 'copies'}<FileLinesOutline size="xs" ariaLabel="Copies" />{/if}
  {#if mark.tag}<Button
      look="bare"
      class="tag"
      {tabindex}
      onclick={() => narrowTo(toggled(queried(), 'tag', mark.tag!))}><TagName tag={mark.tag} /></Button
    >
  {:else if mark.href}<a href={mark.href} {tabindex}>{mark.text}</a>
  {:else}<span class="words">{mark.text}</span>{/if}
{/snippet}

<div class="room" class:crowded={left > 0} bind:this={room}>
  {#each marks as mark, i (mark.key)}
    <span
      data-mark
      class="mark {mark.pencil === 'none' ? 'has' : `pencil-${mark.pencil}`}"
      class:hidden={i >= fits}
      data-tip={mark.has ? `${mark.text} ${mark.has}` : mark.text}>{@render shown(mark)}</span
    >
    {#if left && i === fits - 1}
      <Button
        look="bare"
        class="more"
        {tabindex}
        aria-expanded={open}
        aria-label="{left} more in the margin"
        onclick={() => (open = !open)}>+{left}</Button
      >
    {/if}
  {/each}
</div>
{#if open}
  <div class="all" role="group" aria-label="All in the margin">
    {#each marks as mark (mark.key)}
      <span class="mark {mark.pencil === 'none' ? 'has' : `pencil-${mark.pencil}`}"
        >{@render shown(mark)}</span
      >
    {/each}
    <Button small look="quiet" onclick={() => (open = false)}>Close</Button>
  </div>
{/if}

<style>
  .room {
    position: absolute;
    inset: 9px 12px 5px 14px;
    display: flex;
    flex-wrap: wrap;
    align-content: flex-start;
    gap: 1px 10px;
    overflow: hidden;
  }
  .mark {
    display: inline-flex;
    gap: 5px;
    align-items: center;
    max-width: 100%;
    min-height: 20px;
    overflow: hidden;
    font-size: 12px;
    font-weight: 600;
    line-height: 20px;
    white-space: nowrap;
  }
  /* A long one leaves the count its place. */
  .crowded .mark {
    max-width: calc(100% - 40px);
  }
  .mark :global(svg) {
    margin-top: 0;
  }
  .words,
  .mark a {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .mark a {
    min-height: 24px;
    line-height: 24px;
  }
  .mark a:hover {
    text-decoration: underline;
  }
  .has {
    color: var(--ink-3);
    font-weight: 500;
  }
  .hidden {
    position: absolute;
    visibility: hidden;
  }
  .mark :global(.tag) {
    overflow: hidden;
    border-bottom: 2px solid var(--tint-evidence);
    color: var(--ink-2);
    line-height: 18px;
    text-overflow: ellipsis;
  }
  .room :global(.more) {
    padding: 0 5px;
    border: 1px solid var(--edge);
    border-radius: 9px;
    color: var(--ink-2);
    font-size: 11px;
    font-weight: 650;
    line-height: 17px;
  }
  .all {
    position: absolute;
    z-index: 6;
    top: 4px;
    right: 8px;
    display: grid;
    gap: 3px;
    justify-items: start;
    width: 250px;
    padding: 8px 12px;
    border: 1px solid var(--edge);
    border-radius: 8px;
    background: var(--page);
    box-shadow: 0 8px 28px rgb(0 0 0 / 18%);
  }
  .all .mark {
    white-space: normal;
  }
  @media (max-width: 760px) {
    .room {
      position: static;
      max-height: 44px;
    }
  }
</style>
