<script lang="ts">
  import type { SvelteSet } from 'svelte/reactivity';
  import { KIND_LABELS, locatorText, PASSAGE_KINDS, TINTS } from '$lib/core/passages';
  import type { PassageItem } from '$lib/server/passages';
  import { keyFor } from '../frame/actions.svelte';
  import FilterSelect from '../frame/FilterSelect.svelte';
  import FindField from '../frame/FindField.svelte';
  import { narrow, narrowedBy } from '../frame/narrowing';
  import { Button, Checkbox } from '../kit';
  import TintSwatch from '../reader/TintSwatch.svelte';
  import { dragging, type Dragged } from './dragging';

  interface Props {
    of: 'passages' | 'sources';
    passages: PassageItem[];
    sources: { id: string; label: string; title: string }[];
    /** How many there are, shown or not. */
    total: number;
    /** Tags and sections it can be narrowed to, and the source it is narrowed to. */
    tags: string[];
    sections: { id: string; name: string }[];
    onlyOf: string;
    ticked: SvelteSet<string>;
    /** Where what is put goes, in words; nothing when there is no section yet. */
    where: string | undefined;
    /** Something of the kind stands in a section. */
    placed: boolean;
    onput: (ids: string[]) => void;
  }
  /** What the project has and no section holds yet. One ticks some and puts them where one is, or drags them there. */
  let { of, passages, sources, total, tags, sections, onlyOf, ticked, where, placed, onput }: Props =
    $props();
  const all = $derived(narrowedBy('all') !== '');
  const narrowed = $derived(
    ['q', 'kind', 'tint', 'tag', 'source', 'section'].some((name) => narrowedBy(name) !== ''),
  );
  const shown = $derived(of === 'passages' ? passages.length : sources.length);
  /** All that are ticked, in the order of the shelf, if it is one of them. */
  const along = (id: string) =>
    ticked.has(id) ? [...passages, ...sources].map((one) => one.id).filter((one) => ticked.has(one)) : [id];
  const drag = (id: string, words: string) => () => {
    const ids = along(id);
    const what: Dragged = of === 'passages' ? { kind: 'passages', ids } : { kind: 'sources', ids };
    return { what, words: ids.length === 1 ? words : `${ids.length} ${of}` };
  };
  const tick = (id: string, yes: boolean) => void (yes ? ticked.add(id) : ticked.delete(id));
  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
  /** Up and down go from box to box, as in any list. */
  function onkey(event: KeyboardEvent) {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    const boxes = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('input')];
    const at = boxes.indexOf(event.target as HTMLElement);
    const next = boxes[at + (event.key === 'ArrowDown' ? 1 : -1)];
    if (at === -1 || !next) return;
    event.preventDefault();
    next.focus();
  }
</script>

<aside class="shelf" aria-label="Shelf">
  <div class="head">
    <h2>Shelf</h2>
    <Button
      small
      look="chip"
      aria-pressed={of === 'passages'}
      onclick={() => narrow({ shelf: undefined, tag: undefined })}>Passages</Button
    >
    <Button
      small
      look="chip"
      aria-pressed={of === 'sources'}
      onclick={() =>
        narrow({ shelf: 'sources', kind: undefined, tint: undefined, tag: undefined, source: undefined })}
      >Sources</Button
    >
  </div>
  <div class="narrow" role="group" aria-label="Narrow the shelf">
    <FindField what="on the shelf" wide />
    <Button
      small
      look="chip"
      aria-pressed={all}
      title="Also what stands in a section already: it can stand in several"
      onclick={() => narrow({ all: all ? undefined : '1', section: undefined })}>Placed too</Button
    >
    {#if of === 'passages'}
      <FilterSelect
        name="kind"
        label="Kind"
        any="Any kind"
        options={PASSAGE_KINDS.map((kind) => ({ value: kind, text: KIND_LABELS[kind] }))}
      />
      <FilterSelect
        name="tint"
        label="Tint"
        any="Any tint"
        options={TINTS.map((tint) => ({ value: tint, text: capital(tint) }))}
      />
    {/if}
    {#if tags.length}
      <FilterSelect
        name="tag"
        label="Tag"
        any="Any tag"
        options={tags.map((tag) => ({ value: tag, text: tag }))}
      />
    {/if}
    {#if all && sections.length}
      <FilterSelect
        name="section"
        label="Section"
        any="Any section"
        options={sections.map(({ id, name }) => ({ value: id, text: name }))}
      />
    {/if}
    {#if onlyOf}
      <Button
        small
        look="chip"
        aria-pressed="true"
        title="Of all sources again"
        onclick={() => narrow({ source: undefined })}>{onlyOf} ×</Button
      >
    {/if}
  </div>
  <div class="put">
    <Button
      small
      look="main"
      disabled={!ticked.size || !where}
      aria-keyshortcuts={keyFor('outline put')}
      title="Puts what is ticked below the line you are at ({keyFor('outline put') ?? 'no key'})"
      onclick={() => onput([...ticked])}
      >{ticked.size ? `Put ${ticked.size.toLocaleString('en')} here` : 'Put here'}</Button
    >
    <span class="small-label">{where ? `in ${where}` : 'Make a section first'}</span>
  </div>
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <ul onkeydown={onkey}>
    {#if of === 'passages'}
      {#each passages as passage (passage.id)}
        <li
          data-shelf={passage.id}
          use:dragging={{ drag: drag(passage.id, passage.gist || passage.exact.slice(0, 60)) }}
        >
          <Checkbox
            checked={ticked.has(passage.id)}
            aria-label="Tick: {passage.gist || passage.exact.slice(0, 60) || passage.sourceLabel}"
            onchange={(e) => tick(passage.id, e.currentTarget.checked)}
          />
          <div>
            {#if passage.gist}<p class="gist">{passage.gist}</p>{/if}
            {#if passage.exact}<p class="serif quote">{passage.wording ?? passage.exact}</p>{/if}
            <p class="from">
              <TintSwatch tint={passage.tint} />
              {KIND_LABELS[passage.kind]} ·
              {#if onlyOf}{passage.sourceLabel}{:else}<Button
                  look="bare"
                  class="source"
                  title="Only what is of {passage.sourceLabel}"
                  onclick={() => narrow({ source: passage.sourceId })}>{passage.sourceLabel}</Button
                >{/if}{passage.locator ? `, ${locatorText(passage.locator)}` : ''}
              {#each passage.sections as section (section.id)}<span> § {section.name}</span>{/each}
            </p>
          </div>
        </li>
      {/each}
    {:else}
      {#each sources as source (source.id)}
        <li data-shelf={source.id} use:dragging={{ drag: drag(source.id, source.label) }}>
          <Checkbox
            checked={ticked.has(source.id)}
            aria-label="Tick: {source.label}"
            onchange={(e) => tick(source.id, e.currentTarget.checked)}
          />
          <div>
            <p class="serif quote">{source.title}</p>
            <p class="from">{source.label}</p>
          </div>
        </li>
      {/each}
    {/if}
  </ul>
  {#if shown === 0}
    <p class="hint">
      {#if narrowed}Nothing here fits what you look for.
      {:else if !placed}This project has no {of} yet.
      {:else if of === 'passages'}Every passage of this project stands in a section.{:else}Every source of
        this project stands in a section.{/if}
    </p>
  {:else if total > shown}<p class="hint">
      The first {shown} of {total.toLocaleString('en')}. Narrow the shelf to see the others.
    </p>{/if}
</aside>

<style>
  .from :global(.source) {
    display: inline;
    white-space: normal;
    text-decoration: underline dotted;
  }
  .shelf {
    display: flex;
    flex: none;
    flex-direction: column;
    width: 330px;
    min-height: 0;
    border-left: 2px solid var(--margin-rule);
    background: var(--side);
  }
  .head,
  .narrow,
  .put {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
    padding: 8px 14px 0;
  }
  .put {
    padding-bottom: 8px;
    border-bottom: 1px solid var(--rule);
  }
  h2 {
    margin-right: auto;
    font-size: 14px;
    font-weight: 650;
  }
  ul {
    flex: 1;
    min-height: 0;
    overflow-y: auto;
  }
  li {
    display: grid;
    grid-template-columns: 18px minmax(0, 1fr);
    gap: 8px;
    padding: 9px 14px;
    border-bottom: 1px solid var(--rule);
    cursor: grab;
  }
  .gist {
    font-size: 13px;
    font-weight: 600;
  }
  .quote {
    display: -webkit-box;
    overflow: hidden;
    font-size: 13.5px;
    line-height: 1.4;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 3;
    line-clamp: 3;
  }
  .from {
    color: var(--ink-3);
    font-size: 12px;
  }
  .hint {
    padding: 12px 14px;
    color: var(--ink-2);
    font-size: 13px;
  }
  @media (max-width: 900px) {
    .shelf {
      width: auto;
      max-height: 40vh;
      border-left: 0;
      border-top: 2px solid var(--margin-rule);
    }
  }
</style>
