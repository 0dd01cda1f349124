<script lang="ts">
  import { Empty, Input, Progress } from '$lib/ui/kit';
  import { untrack } from 'svelte';
  import { browser } from '$app/environment';
  import { page } from '$app/state';
  import { HEADING, type AnnotationKind } from '$lib/core/citing';
  import type { Setting } from '$lib/server/lists';
  import { filling } from '$lib/ui/capture/filling.svelte';
  import ListHead from '$lib/ui/lists/ListHead.svelte';
  import ListPart from '$lib/ui/lists/ListPart.svelte';
  import { printedList } from '$lib/ui/lists/printed-list.svelte';
  import ListOutputs from '$lib/ui/lists/ListOutputs.svelte';
  import { listScope } from '$lib/ui/lists/list-scope';
  import { narrow, narrowedBy } from '$lib/ui/frame/narrowing';

  let { data } = $props();

  const holds = $derived(listScope(page.url.searchParams, data.projectId, browser ? page.url.hash : ''));
  const group = $derived(narrowedBy('group'));
  const heading = $derived(narrowedBy('heading'));
  const setting = $derived({
    ...(group ? { group: group as Setting['group'] } : {}),
    annotate: narrowedBy('under').split(',').filter(Boolean) as AnnotationKind[],
  });
  const look = $derived({ style: data.style, locale: data.locale });

  const printed = printedList(() => {
    // A change anywhere in the library comes in as new layout data, and the list follows it.
    void data.counts;
    return { scope: holds.scope, look, setting };
  });
  const list = $derived(printed.list);
  const many = (n: number) => `${n} ${n === 1 ? 'entry' : 'entries'}`;

  // A part has with it all that its entries show: what they asked of the list or the page would be asked of all of them
  // at once.
  const PART = 15;
  const shown = filling(() => {
    const { entries = [], hangingIndent: hanging = true } = list ?? {};
    const style = untrack(() => data.styleTitle);
    return Array.from({ length: Math.ceil(entries.length / PART) }, (_, i) => ({
      entries: entries.slice(i * PART, (i + 1) * PART),
      hanging,
      style,
    }));
  });
</script>

<svelte:head><title>Reference list · Retexa</title></svelte:head>

<ListHead
  {data}
  {holds}
  {group}
  samples={list?.entries.slice(0, 2).map((e) => e.id) ?? []}
  said={printed.printing ? 'Printing…' : list ? many(list.entries.length) : ''}
/>

{#if list && list.total === 0}
  <Empty>
    <h2>Nothing to print</h2>
    <p>
      There are no sources here yet. <a class="link" href="/sources">Select some</a>, or choose the whole
      library above.
    </p>
  </Empty>
{:else if list && !list.hasList}
  <Empty>
    <h2>This style has no reference list</h2>
    <p>{data.styleTitle} puts everything into its notes. Choose another style above for a list.</p>
  </Empty>
{:else if list}
  <div class="spread">
    <section class="sheet" class:stale={printed.printing} aria-label="References">
      <Input
        look="bare"
        class="heading"
        aria-label="Heading of the list"
        title="The heading, in documents too. Choose it to change it."
        placeholder={HEADING}
        maxlength="200"
        value={heading}
        onchange={(e) => narrow({ heading: e.currentTarget.value.trim() || undefined })}
        onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
      {#each shown.parts as part, p (p)}<ListPart {...part} />{/each}
    </section>
    <ListOutputs
      entries={list.entries}
      plain={list.plain}
      rich={list.rich}
      scope={holds.scope}
      {look}
      style={data.styleTitle}
      setting={{ ...setting, heading }}
    />
  </div>
{:else}
  <Empty>
    <h2>Printing the list…</h2>
    <Progress label="Printing the list" />
    {#if printed.long}<p>
        A long list takes its time in a style that is new to it. After that, only what changes is printed
        again.
      </p>{/if}
  </Empty>
{/if}

<style>
  .spread {
    display: grid;
    flex: 1;
    grid-template-columns: minmax(0, 1fr) 268px;
    min-height: 0;
  }
  .sheet {
    padding: 20px 0 60px;
    background: linear-gradient(var(--margin-rule), var(--margin-rule)) no-repeat calc(100% - 196px) 0 / 1px
      100%;
    overflow-y: auto;
  }
  .stale {
    opacity: 0.6;
  }
  .sheet :global(.heading) {
    display: block;
    width: calc(100% - 230px);
    margin: 0 200px 10px 30px;
    padding: 2px 8px;
    border: 1px solid transparent;
    border-radius: 5px;
    background: transparent;
    font-family: var(--font-serif);
    font-size: 18px;
    font-weight: 600;
    text-align: center;
  }
  .sheet :global(.heading::placeholder) {
    color: var(--ink);
    opacity: 1;
  }
  .sheet :global(.heading:hover),
  .sheet :global(.heading:focus) {
    border-color: var(--edge);
  }
  @media (max-width: 900px) {
    .sheet {
      background: none;
    }
    .spread {
      display: block;
    }
    .sheet :global(.heading) {
      width: calc(100% - 32px);
      margin: 0 16px 10px;
    }
  }
  @media print {
    .spread {
      display: block;
    }
    .sheet {
      padding: 0;
      background: none;
      overflow: visible;
    }
    .spread > :global(aside) {
      display: none;
    }
    .sheet :global(.heading) {
      width: 100%;
      margin: 0 0 10px;
      border: 0;
    }
  }
</style>
