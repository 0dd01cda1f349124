<script lang="ts">
  import { inOwnWords, KIND_LABELS, locatorText, stintOf } from '$lib/core/passages';
  import type { PassageItem } from '$lib/server/passages';
  import { call, copyText } from '../frame/client';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button, Checkbox } from '../kit';
  import { openCiting } from '../lists/citing.svelte';
  import { onlyFor, people } from '../people/others.svelte';
  import PersonMark from '../people/PersonMark.svelte';
  import FigurePicture from '../reader/FigurePicture.svelte';
  import Reworded from '../reader/Reworded.svelte';
  import TintSwatch from '../reader/TintSwatch.svelte';
  import TagName from '../source/TagName.svelte';

  interface Props {
    passage: PassageItem;
    selected: boolean;
    /** The part of the project’s draft it is used in. */
    inDraft?: string | undefined;
    onselect: (selected: boolean) => void;
    /** Edits one that stands in no copy. */
    onedit: () => void;
  }
  /** A passage in Passages: the work's words with where they stand, and one's own beside them. */
  let { passage, selected, inDraft, onselect, onedit }: Props = $props();
  const asksPlace = $derived(
    !passage.locator && Boolean(passage.exact || passage.selectors || passage.figure),
  );

  async function bin() {
    const made = await attempt(() =>
      call<{ revisionId?: string }>('POST', `/api/passages/${passage.id}/bin`, { binned: true }),
    );
    if (made) done('The passage is in the bin.', [made.revisionId]);
  }
  /** One's own words where they are what is kept, else the words of the work; cited as the project's style does. */
  const copy = () =>
    attempt(async () => {
      const { figure, wording, exact } = passage;
      const words = figure ? [figure.number, exact].filter(Boolean).join('. ') : `“${wording ?? exact}”`;
      const own = inOwnWords(passage.kind) && (passage.ownWords.trim() || passage.gist.trim());
      const { label, value: place } = passage.locator ?? {};
      const { text } = await call<{ text: string }>('POST', '/api/citations', {
        works: [{ id: passage.sourceId, ...(place ? { label, locator: place } : {}) }],
      });
      await copyText(`${own || words} ${text}`);
      done(
        own
          ? 'Your words are copied, cited.'
          : figure
            ? 'Caption copied, cited.'
            : 'Quotation copied, cited.',
      );
    });
  /** What one must be allowed to do to change it: what is one’s own, or anything. */
  const changing = $derived(passage.ownerId === people.self ? ('annotate' as const) : ('edit' as const));
</script>

<li data-passage={passage.id} class:selected>
  <span class="pick"
    ><Checkbox
      checked={selected}
      aria-label="Select: {passage.gist || passage.exact.slice(0, 60)}"
      onchange={(e) => onselect(e.currentTarget.checked)}
    /></span
  >
  <div class="quote">
    {#if passage.figure}<FigurePicture {passage} most={260} />
      <p class="serif">{[passage.figure.number, passage.exact].filter(Boolean).join('. ')}</p>
    {:else if passage.exact}<p class="serif">
        <mark class="passage {passage.tint}">{passage.wording ?? passage.exact}</mark>
      </p>{:else}<p class="small-label">On the whole of it</p>{/if}
    <p class="from">
      {#if passage.copyId}<a class="link" href="/copies/{passage.copyId}?passage={passage.id}"
          >{stintOf(passage.locator)
            ? 'Hear it'
            : passage.figure
              ? 'Show on the page'
              : passage.selectors
                ? 'Show in the text'
                : 'Open the copy'}</a
        >{:else}<Button needs={changing} small look="quiet" class="-my-1 -ml-2" onclick={onedit}>Edit</Button
        >{/if}
      <a href="/sources/{passage.sourceId}">{passage.sourceLabel}</a>
      <span>{locatorText(passage.locator)}</span>
      {#each passage.sections as section (section.id)}<a href="/passages?section={section.id}"
          >§ {section.name}</a
        >{/each}
      {#if inDraft}<a class="link" href="/draft?part={inDraft}">In the draft</a>{/if}
      {#each passage.tags as tag (tag)}<a href="/passages?tag={encodeURIComponent(tag)}"><TagName {tag} /></a
        >{/each}
      {#if !passage.copyId}<span class="small-label">no copy here</span>{/if}
      {#if asksPlace}<span class="pencil-red">no place</span>{/if}
      {#if passage.anchor === 'lost'}<span class="pencil-red">no longer in the page</span
        >{:else if passage.anchor === 'moved'}<span class="pencil-blue">moved with the text</span>{/if}
    </p>
    {#if passage.anchor === 'changed'}<Reworded {passage} />{/if}
  </div>
  <div class="own">
    <p class="small-label">
      <TintSwatch tint={passage.tint} />
      {KIND_LABELS[passage.kind]}{onlyFor(passage) ? ` · ${onlyFor(passage)}` : ''}
      {#if people.several}<PersonMark
          id={passage.ownerId}
          name={passage.owner}
          self={passage.ownerId === people.self}
        />{/if}
    </p>
    {#if passage.gist}<p class="gist">{passage.gist}</p>{/if}
    {#if passage.ownWords}<p class="serif words">{passage.ownWords}</p>{/if}
    <p class="acts">
      <Button small look="quiet" onclick={copy}>Copy</Button>
      <Button
        small
        look="quiet"
        onclick={() =>
          openCiting([{ id: passage.sourceId, name: passage.sourceLabel, locator: passage.locator }])}
        >Cite</Button
      >
      <Button needs={changing} small look="quiet" onclick={bin}>Put in the bin</Button>
    </p>
  </div>
</li>

<style>
  li {
    display: grid;
    grid-template-columns: 40px minmax(0, 1fr) 340px;
    border-bottom: 1px solid var(--rule);
  }
  li.selected {
    background: var(--thread-soft);
  }
  .pick {
    padding: 15px 0 0 26px;
  }
  .quote {
    padding: 12px 26px 12px 14px;
    font-size: 16.5px;
    line-height: 1.5;
  }
  .from {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    align-items: baseline;
    padding-top: 6px;
    color: var(--ink-2);
    font-size: 13px;
  }
  .own {
    padding: 12px 18px 6px;
    border-left: 1px solid var(--margin-rule);
  }
  .gist {
    margin-top: 3px;
    font-weight: 650;
  }
  .words {
    color: var(--ink-2);
    font-size: 15px;
    line-height: 1.4;
  }
  .acts {
    margin-left: -8px;
  }
  mark.claim {
    --tint: var(--tint-claim);
  }
  mark.evidence {
    --tint: var(--tint-evidence);
    text-decoration-style: dotted;
  }
  mark.method {
    --tint: var(--tint-method);
    text-decoration-style: double;
  }
  mark.term {
    --tint: var(--tint-term);
    text-decoration-style: dashed;
  }
  mark.doubt {
    --tint: var(--tint-doubt);
    text-decoration-style: wavy;
    text-decoration-thickness: 1px;
  }
  mark.passage {
    background: color-mix(in srgb, var(--tint) 35%, transparent);
  }
  @media (max-width: 760px) {
    li {
      grid-template-columns: 40px minmax(0, 1fr);
    }
    .own {
      grid-column: 2;
      padding: 0 26px 10px 14px;
      border: 0;
    }
  }
</style>
