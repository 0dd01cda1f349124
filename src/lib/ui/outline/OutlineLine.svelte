<script lang="ts">
  import type { Standing, Thin } from '$lib/core/outline';
  import { KIND_LABELS, locatorText } from '$lib/core/passages';
  import TintSwatch from '../reader/TintSwatch.svelte';
  import type { Line } from './lines';

  interface Props {
    line: Line;
    folded: boolean;
    standing: Standing | undefined;
    thin: Thin | undefined;
    /** No source or passage stands behind it in its section. */
    bare: boolean;
  }
  /** A line of an outline as it is read. What is wanting stands in its margin. */
  let { line, folded, standing, thin, bare }: Props = $props();
  const count = (n: number, one: string) => (n ? `${n} ${n === 1 ? one : `${one}s`}` : '');
  const held = $derived(
    standing
      ? [
          count(standing.sources, 'source'),
          count(standing.passages, 'passage'),
          standing.ownWords ? `${standing.ownWords} own` : '',
        ]
          .filter(Boolean)
          .join(' · ')
      : '',
  );
</script>

{#if line.kind === 'section'}
  <span class="sign" aria-hidden="true">{line.holds ? (folded ? '▸' : '▾') : ''}</span>
  <span class="heading" class:deep={line.depth > 0}>{line.section.name}</span>
  <span class="margin">
    {#if thin}<span class="pencil-blue">{thin}</span>{/if}
    {#if held}<span>{held}</span>{/if}
  </span>
{:else if line.item.passage}
  {@const { passage, source } = line.item}
  <span class="sign"><TintSwatch tint={passage.tint} /></span>
  <span class="text">
    {#if passage.gist}<span class="gist">{passage.gist}</span>{/if}
    {#if passage.figure}<span class="serif quote"
        >{[passage.figure.number, passage.exact].filter(Boolean).join('. ') || 'A figure'}</span
      >{:else if passage.exact}<span class="serif quote">“{passage.exact}”</span>{/if}
    {#if passage.ownWords && passage.ownWords !== passage.gist}<span class="serif quote own"
        >{passage.ownWords}</span
      >{/if}
  </span>
  <span class="margin">
    <span
      >{KIND_LABELS[passage.kind]} ·
      <a
        class="link"
        tabindex="-1"
        href={passage.copyId
          ? `/copies/${passage.copyId}?passage=${line.item.ref}`
          : `/sources/${source!.id}`}>{source!.label}</a
      >{passage.locator ? `, ${locatorText(passage.locator)}` : ''}</span
    >
    {#if passage.private}<span>only for me</span>{/if}
    {#if passage.anchor === 'lost'}<span class="pencil-red">no longer in the page</span>{/if}
    {#if !passage.locator && passage.exact}<span class="pencil-red">no place</span>{/if}
  </span>
{:else if line.item.source}
  <span class="sign" aria-hidden="true">▪</span>
  <span class="text"><span class="serif">{line.item.source.title || 'Without a title'}</span></span>
  <span class="margin"
    ><span
      >Source · <a class="link" tabindex="-1" href="/sources/{line.item.source.id}"
        >{line.item.source.label}</a
      ></span
    ></span
  >
{:else}
  <span class="sign own-sign" aria-hidden="true">{line.item.kind === 'question' ? '?' : '¶'}</span>
  <span class="text own-text" class:question={line.item.kind === 'question'}
    >{line.item.words || 'Nothing written yet'}</span
  >
  <span class="margin">
    {#if bare}<span class="pencil-blue" data-tip="No source or passage stands behind it in this section"
        >no evidence behind it</span
      >{/if}
  </span>
{/if}

<style>
  .sign {
    flex: none;
    width: 22px;
    padding-top: 1px;
    color: var(--ink-3);
    font-size: 11px;
    text-align: center;
  }
  .own-sign {
    color: var(--thread);
    font-size: 13px;
    font-weight: 650;
  }
  .heading {
    flex: 1;
    min-width: 0;
    font-size: 16px;
    font-weight: 650;
    overflow-wrap: anywhere;
  }
  .heading.deep {
    font-size: 14px;
  }
  .text {
    display: grid;
    flex: 1;
    gap: 2px;
    min-width: 0;
    font-size: 14.5px;
    line-height: 1.4;
    overflow-wrap: anywhere;
  }
  .quote {
    display: -webkit-box;
    overflow: hidden;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 3;
    line-clamp: 3;
  }
  .gist {
    font-size: 13.5px;
    font-weight: 600;
  }
  .own {
    color: var(--ink-2);
    font-style: italic;
  }
  .own-text {
    font-size: 14.5px;
    white-space: pre-wrap;
  }
  .question {
    font-style: italic;
  }
  .margin {
    display: grid;
    flex: none;
    align-content: start;
    width: 200px;
    color: var(--ink-3);
    font-size: 12px;
    line-height: 1.45;
  }
  @media (max-width: 760px) {
    .margin {
      width: 120px;
    }
  }
</style>
