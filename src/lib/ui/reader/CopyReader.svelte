<script lang="ts">
  import { page } from '$app/state';
  import { hidden } from '../people/others.svelte';
  import { lookedAt } from './looked.svelte';
  import type { CopyOpen } from './open';
  import { wordsSelected } from './begun.svelte';
  import { offer } from '../frame/actions.svelte';
  import CopyHead from './CopyHead.svelte';
  import EditPassage from './EditPassage.svelte';
  import FindInDocument from './FindInDocument.svelte';
  import HeadingPanel from './HeadingPanel.svelte';
  import { headingsOf, type Heading } from './headings';
  import LeafBar from './LeafBar.svelte';
  import LeafPanel from './LeafPanel.svelte';
  import type { Turn } from './leaves';
  import LostPassages from './LostPassages.svelte';
  import PageFrame from './PageFrame.svelte';
  import PassageMargin from './PassageMargin.svelte';
  import PassageSheet from './PassageSheet.svelte';
  import { keepsPlace } from './place';
  import { cutAddress } from './figuring.svelte';
  import { reader } from './reader.svelte';

  /** A copy that is read: its document, and its passages beside it. */
  let { data }: { data: CopyOpen } = $props();
  let scroller: HTMLElement | undefined = $state();
  /** What is shown of it: without those whose passages are hidden. */
  const shown = $derived({ ...data, passages: data.passages.filter((p) => !hidden.has(p.ownerId)) });
  const since = lookedAt(() => data);
  const read = reader(
    () => shown,
    () => scroller,
  );
  let finding = $state(false);
  /** How often the document was laid in its frame anew. */
  let laid = $state(0);
  /** How many of its pictures are not kept. */
  const missing = $derived(read.doc?.querySelectorAll('[data-picture]').length ?? 0);
  let panel = $state(false);
  let headings = $state.raw<Heading[]>([]);
  let leaf = $state(1);
  let turn = $state<Turn>(0);

  function leaveFinding() {
    finding = false;
    read.hits.clear();
    read.doc?.defaultView?.focus();
  }
  offer(() => ({
    'reader find': () => (finding = true),
    'reader caret': read.doc && read.toggleCaret,
    'reader whole': read.sayOfWhole,
    'reader figure': read.figures.possible ? cutOut : undefined,
  }));

  /** Boxes are drawn on pages that stand upright. */
  function cutOut() {
    turn = 0;
    read.figures.toggle();
    if (read.figures.on) read.doc?.defaultView?.focus();
  }

  const place = keepsPlace(
    () => data.copy.id,
    () => scroller,
  );
  function ready(doc: Document, leaves: typeof read.leaves) {
    const wanted = {
      passage: page.url.searchParams.get('passage'),
      words: page.url.searchParams.get('words'),
    };
    headings = headingsOf(doc);
    read.ready(doc, leaves, wanted);
    place.open(doc, wanted.passage || wanted.words ? undefined : data.place);
  }
</script>

<svelte:window onkeydown={(e) => e.key === 'Escape' && read.leave()} onresize={read.layout} />

<CopyHead
  source={data.source}
  copy={data.copy}
  copies={data.copies}
  passages={data.passages.length}
  pages={Boolean(read.leaves)}
  caret={read.caretOn}
  boxing={read.figures.possible ? read.figures.on : undefined}
  onfigure={cutOut}
  onpictures={() => laid++}
  contents={headings.length ? panel : undefined}
  oncontents={() => (panel = !panel)}
  onfind={() => (finding = true)}
  oncaret={read.toggleCaret}
/>
{#if missing && data.copy.address}<p class="of-copy small-label">
    {missing === 1 ? 'One picture of this page is' : `${missing} pictures of this page are`} not kept. “Look again”
    fetches what can be had.
  </p>{/if}
{#if data.copy.note}<p class="of-copy small-label">
    {data.copy.note}
    {#if data.copy.media_type === 'application/octet-stream'}<a
        class="link"
        href="/copies/{data.copy.id}/file"
        download>Save the file</a
      >{/if}
  </p>{/if}
<LostPassages
  passages={read.lost}
  known={read.knowsWhere}
  onshow={read.showWhere}
  onedit={(id) => {
    read.edit(id);
    read.goTo(id);
  }}
/>
{#if read.leaves}
  <LeafBar
    leaves={read.leaves}
    {leaf}
    {turn}
    {panel}
    ongo={read.goToLeaf}
    onturn={(next) => (turn = next)}
    onpanel={() => (panel = !panel)}
  />
{/if}
{#if read.figures.on}<p class="of-copy small-label" role="status">
    Draw a box around the figure; a click takes a picture whole. By keys: Tab to it, Enter takes it. Esc
    leaves it.
  </p>{/if}
{#if finding}<FindInDocument hits={read.hits} onleave={leaveFinding} />{/if}

<div class="whole">
  {#if panel && read.leaves}
    <LeafPanel copyId={data.copy.id} leaves={read.leaves} {leaf} marked={read.marked} ongo={read.goToLeaf} />
  {:else if panel && headings.length}
    <HeadingPanel {headings} {scroller} />
  {/if}
  <div class="reader" bind:this={scroller}>
    <div class="text">
      {#key `${data.copy.id} ${data.copy.reading_sha256} ${laid}`}<PageFrame
          copyId={data.copy.id}
          title={data.copy.title || data.source.title}
          {turn}
          onready={ready}
          onlayout={read.layout}
          onleaf={(n) => (leaf = n)}
        />{/key}
      {#if read.figures.fresh}
        {@const box = read.figures.fresh}
        {#key box}
          {@const begun = read.figures.saidOf(box)}
          <div class="place" style="top: {read.margin.sheetTop}px">
            <PassageSheet
              exact={begun?.caption ?? box.caption}
              said={read.begin()}
              of="figure"
              figure={{
                said: begun?.figure ?? { place: box.place, number: box.number, alt: box.alt, drawing: [] },
                address: (place) => cutAddress(data.copy.id, place),
              }}
              kept={false}
              offeredTags={data.tags}
              ontype={read.typed}
              onkeep={read.keep}
              onleave={read.leave}
            />
          </div>
        {/key}
      {:else if read.fresh ?? read.whole}
        {#key read.fresh}
          <div
            class="place"
            class:of-whole={read.whole}
            style="top: {read.whole ? 16 : read.margin.sheetTop}px"
          >
            <PassageSheet
              exact={read.fresh ? wordsSelected(read.fresh) : ''}
              adding={read.adding}
              {...read.fresh ? { onadd: read.add } : {}}
              said={read.begin()}
              of={read.whole ? 'whole' : 'place'}
              kept={false}
              already={read.already}
              offeredTags={data.tags}
              covered={read.covered}
              oncover={read.cover}
              ontype={read.typed}
              onkeep={read.keep}
              onleave={read.leave}
            />
          </div>
        {/key}
      {:else if read.editing}
        {#key read.editing.id}
          <div class="place" style="top: {read.margin.sheetTop}px">
            <EditPassage
              passage={read.editing}
              offeredTags={data.tags}
              sections={data.sections}
              placed={read.editing.sections.map((s) => s.id)}
              tasks={data.tasks.filter((t) => t.passageId === read.editing?.id)}
              links={data.links[read.editing.id] ?? []}
              others={data.others}
              elsewhere={read.elsewhere}
              covered={read.covered}
              oncover={read.cover}
              onleave={read.leave}
            />
          </div>
        {/key}
      {/if}
    </div>
    <PassageMargin
      passages={read.placed}
      onWhole={read.onWhole}
      links={data.links}
      threads={data.threads}
      all={data.passages}
      since={since()}
      tasks={data.tasks}
      moved={read.moved}
      chosen={read.chosen}
      fresh={read.fresh}
      waiting={read.begun.but(read.fresh)}
      figure={read.figures}
      level={read.margin}
      ongo={read.goTo}
      onedit={read.edit}
      onbegun={read.resume}
      onthrow={read.begun.throwAway}
      onwhole={read.sayOfWhole}
    />
  </div>
</div>

<style>
  .whole {
    display: flex;
    flex: 1;
    min-height: 0;
  }
  .reader {
    position: relative;
    display: grid;
    flex: 1;
    grid-template-columns: minmax(0, 1fr) 348px;
    min-width: 0;
    min-height: 0;
    overflow: auto;
  }
  .text {
    position: relative;
    border-right: 1px solid var(--margin-rule);
  }
  .place {
    position: absolute;
    z-index: 45;
    left: 50%;
    padding-bottom: 40px;
    transform: translateX(-50%);
  }
  .place.of-whole {
    position: sticky;
    width: fit-content;
    height: 0;
    overflow: visible;
  }
  .of-copy {
    padding: 6px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--blue-soft);
    color: var(--ink-2);
  }
  @media (max-width: 900px) {
    .reader {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  @media print {
    .whole,
    .reader {
      display: block;
      overflow: visible;
    }
    .place {
      display: none;
    }
    .text {
      border: 0;
    }
  }
</style>
