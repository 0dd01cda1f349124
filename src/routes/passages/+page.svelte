<script lang="ts">
  import { Button, Empty, PageHead } from '$lib/ui/kit';
  import { page } from '$app/state';
  import { KIND_LABELS, locatorText, PASSAGE_KINDS, TINTS } from '$lib/core/passages';
  import FilterSelect from '$lib/ui/frame/FilterSelect.svelte';
  import FindField from '$lib/ui/frame/FindField.svelte';
  import Reworded from '$lib/ui/reader/Reworded.svelte';
  import TintSwatch from '$lib/ui/reader/TintSwatch.svelte';
  import { openCiting } from '$lib/ui/lists/citing.svelte';
  import { call, copyText } from '$lib/ui/frame/client';
  import { narrow, narrowedBy } from '$lib/ui/frame/narrowing';
  import { attempt, done } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();
  const filtered = $derived([...page.url.searchParams.keys()].length > 0);

  async function bin(id: string) {
    const made = await attempt(() =>
      call<{ revisionId?: string }>('POST', `/api/passages/${id}/bin`, { binned: true }),
    );
    if (made) done('The passage is in the bin.', [made.revisionId]);
  }
  /** One's own words where they are what is kept, else the words of the work; cited as the project's style does. */
  const copy = (passage: (typeof data.items)[number]) =>
    attempt(async () => {
      const own = ['paraphrase', 'summary', 'comment'].includes(passage.kind) && passage.ownWords.trim();
      const { label, value: place } = passage.locator ?? {};
      const { text } = await call<{ text: string }>('POST', '/api/citations', {
        works: [{ id: passage.sourceId, ...(place ? { label, locator: place } : {}) }],
      });
      await copyText(`${own || `“${passage.exact}”`} ${text}`);
      done(own ? 'Your words are copied, cited.' : 'Quotation copied, cited.');
    });
</script>

<svelte:head><title>Passages · Retexa</title></svelte:head>

<PageHead>
  <h1>Passages</h1>
  <span class="sub"
    >{data.total.toLocaleString('en')}
    {filtered ? 'found' : data.projectId ? 'in this project' : 'in the library'}, latest first</span
  >
  <span class="flex-1"></span>
  <FindField what="passages" />
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
    options={TINTS.map((tint) => ({ value: tint, text: tint.charAt(0).toUpperCase() + tint.slice(1) }))}
  />
  <Button
    look="chip"
    aria-pressed={Boolean(narrowedBy('lost'))}
    onclick={() => narrow({ lost: narrowedBy('lost') ? '' : '1' })}>Lost</Button
  >
  {#if filtered}<Button small look="quiet" href="/passages">Show all</Button>{/if}
</PageHead>

{#if data.total === 0}
  <Empty>
    {#if filtered}
      <h2>Nothing fits</h2>
      <p>No passage fits what you look for. <a class="link" href="/passages">Show all passages</a></p>
    {:else}
      <h2>No passages yet</h2>
      <p>
        Open the copy of a source and select a sentence in it. It is kept here with its place, its point and
        your own words. <a class="link" href="/sources">Go to the sources</a>
      </p>
    {/if}
  </Empty>
{:else}
  <ul class="list">
    {#each data.items as passage (passage.id)}
      <li data-passage={passage.id}>
        <div class="quote">
          <p class="serif"><mark class="passage {passage.tint}">{passage.exact}</mark></p>
          <p class="from">
            <a class="link" href="/copies/{passage.copyId}?passage={passage.id}">Show in the text</a>
            <a href="/sources/{passage.sourceId}">{passage.sourceLabel}</a>
            <span>{locatorText(passage.locator)}</span>
            {#if passage.anchor === 'lost'}<span class="pencil-red">no longer in the page</span
              >{:else if passage.anchor === 'moved'}<span class="pencil-blue">moved with the text</span>{/if}
          </p>
          {#if passage.anchor === 'changed'}<Reworded {passage} />{/if}
        </div>
        <div class="own">
          <p class="small-label">
            <TintSwatch tint={passage.tint} />
            {KIND_LABELS[passage.kind]}{passage.visibility === 'private' ? ' · only for me' : ''}
          </p>
          {#if passage.gist}<p class="gist">{passage.gist}</p>{/if}
          {#if passage.ownWords}<p class="serif words">{passage.ownWords}</p>{/if}
          <p class="acts">
            <Button small look="quiet" onclick={() => copy(passage)}>Copy</Button>
            <Button
              small
              look="quiet"
              onclick={() =>
                openCiting([{ id: passage.sourceId, name: passage.sourceLabel, locator: passage.locator }])}
              >Cite</Button
            >
            <Button small look="quiet" onclick={() => bin(passage.id)}>Put in the bin</Button>
          </p>
        </div>
      </li>
    {/each}
  </ul>
  {#if data.total > data.shown}<p class="small-label p-6">
      The latest {data.shown} are shown. Narrow the list to see the others.
    </p>{/if}
{/if}

<style>
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 340px;
    border-bottom: 1px solid var(--rule);
  }
  .quote {
    padding: 12px 26px;
    font-size: 16.5px;
    line-height: 1.5;
  }
  .from {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
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
      grid-template-columns: minmax(0, 1fr);
    }
    .own {
      padding: 0 26px 10px;
      border: 0;
    }
  }
</style>
