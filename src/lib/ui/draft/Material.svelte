<script lang="ts">
  import { KIND_LABELS, locatorText } from '$lib/core/passages';
  import type { OutlineItem, OutlineSection } from '$lib/server/projects';
  import { Button, Select } from '../kit';
  import TintSwatch from '../reader/TintSwatch.svelte';
  import { DRAGGED } from './writing.svelte';

  interface Props {
    sections: (OutlineSection & { depth: number })[];
    items: OutlineItem[];
    /** The section that belongs to what is being written. */
    follows: string | undefined;
    /** Passages and works that stand in the text already. */
    used: ReadonlySet<string>;
    onput: (items: OutlineItem[]) => void;
  }
  /** What stands in the outline for what is being written: put into the text by a key, a button, or dragging. */
  let { sections, items, follows, used, onput }: Props = $props();
  /** A section chosen by hand; it is let go when one writes under another heading. */
  let chosen = $state<{ id: string; under: string | undefined }>();
  const section = $derived(
    (chosen && chosen.under === follows ? chosen.id : undefined) ?? follows ?? sections[0]?.id,
  );
  const shown = $derived(items.filter((item) => item.sectionId === section));
  const wordsOf = ({ passage, source, words }: OutlineItem) =>
    words ?? (passage ? passage.gist || passage.exact || passage.ownWords : (source?.title ?? ''));
  function onkey(event: KeyboardEvent) {
    const cards = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('li')];
    const at = cards.indexOf((event.target as HTMLElement).closest('li')!);
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      cards[at + (event.key === 'ArrowDown' ? 1 : -1)]?.focus();
    } else if (event.key === 'Enter' && event.target === cards[at] && shown[at]) {
      event.preventDefault();
      onput([shown[at]]);
    }
  }
</script>

<div class="which">
  <Select
    look="chip"
    aria-label="Section of the outline"
    value={section ?? ''}
    onchange={(e) => (chosen = { id: e.currentTarget.value, under: follows })}
  >
    {#each sections as one (one.id)}
      <option value={one.id}>{'\u2003'.repeat(one.depth)}{one.name}</option>
    {/each}
  </Select>
  <span class="small-label">{shown.length} here</span>
</div>
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<ul onkeydown={onkey} aria-label="Material">
  {#each shown as item (item.ref)}
    {@const { passage, source } = item}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <li
      tabindex="0"
      draggable="true"
      data-item={item.ref}
      class:used={used.has(item.ref)}
      aria-label={wordsOf(item)}
      ondragstart={(e) => e.dataTransfer?.setData(DRAGGED, JSON.stringify(item))}
    >
      {#if passage}
        {#if passage.gist}<p class="gist">{passage.gist}</p>{/if}
        {#if passage.exact}<p class="serif quote">{passage.exact}</p>{/if}
        {#if passage.ownWords}<p class="own">{passage.ownWords}</p>{/if}
      {:else if source}
        <p class="serif quote">{source.title}</p>
      {:else}
        <p class="own">{item.words}</p>
      {/if}
      <p class="from">
        {#if passage}<TintSwatch tint={passage.tint} />
          {KIND_LABELS[passage.kind]} ·
        {/if}
        {source?.label ??
          (item.kind === 'question' ? 'A question of yours' : 'A sentence of yours')}{passage?.locator
          ? `, ${locatorText(passage.locator)}`
          : ''}
        {#if used.has(item.ref)}<b>in the text</b>{/if}
        <span class="put">
          {#if passage?.copyId}
            <a href="/copies/{passage.copyId}?passage={item.ref}" data-tip="Its place in the document"
              >Place</a
            >
          {/if}
          <Button
            small
            look="quiet"
            needs="edit"
            title="Puts it where the caret is (Enter)"
            onclick={() => onput([item])}>Put</Button
          >
        </span>
      </p>
    </li>
  {/each}
</ul>
{#if sections.length === 0}
  <p class="hint">
    The outline of this project has no sections yet. <a href="/outline">Make some</a>, and put passages under
    them.
  </p>
{:else if shown.length === 0}
  <p class="hint">Nothing stands in this section. <a href="/outline?at={section}">Put something there</a>.</p>
{/if}

<style>
  .which {
    display: flex;
    gap: 8px;
    align-items: center;
    padding: 8px 14px;
    border-bottom: 1px solid var(--rule);
  }
  ul {
    flex: 1;
    min-height: 0;
    overflow-y: auto;
  }
  li {
    display: grid;
    gap: 3px;
    padding: 9px 14px;
    border-bottom: 1px solid var(--rule);
    cursor: grab;
  }
  li:focus-visible {
    outline-offset: -2px;
  }
  .used {
    background: var(--green-soft);
  }
  .gist {
    font-size: 13px;
    font-weight: 600;
  }
  .quote,
  .own {
    display: -webkit-box;
    overflow: hidden;
    font-size: 13.5px;
    line-height: 1.4;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 4;
    line-clamp: 4;
  }
  .from {
    color: var(--ink-3);
    font-size: 12px;
  }
  .put {
    float: right;
  }
  .hint {
    padding: 12px 14px;
    color: var(--ink-2);
    font-size: 13px;
  }
  a {
    text-decoration: underline;
  }
</style>
