<script lang="ts">
  import { Button, Radio } from '../kit';
  import { untrack } from 'svelte';
  import { fieldName } from '$lib/core/source';
  import type { Answer, Differing, Here, ImportQuestion } from '$lib/server/imports';
  import { actOn } from './jobs';
  import { virtualRows } from '../kit/virtual-rows.svelte';

  /** The entries of an import that are in the library already, with what to do with each. */
  let { jobId, question }: { jobId: string; question: ImportQuestion } = $props();

  const ANSWERS: { answer: Answer; label: string; says: string }[] = [
    { answer: 'merge', label: 'Merge', says: 'the source you have gets what the file knows besides' },
    { answer: 'skip', label: 'Skip', says: 'the entry is left out' },
    { answer: 'both', label: 'Keep both', says: 'the entry becomes a source of its own' },
  ];
  const sure = $derived(question.here.filter((h) => h.sure));
  const doubtful = $derived(question.here.filter((h) => !h.sure));
  // What asks for judgement stands first.
  const rows = $derived([...doubtful, ...sure]);
  const kinds = $derived(
    [
      { name: 'Perhaps the same', some: doubtful },
      { name: 'The same work', some: sure },
    ].filter((k) => k.some.length),
  );
  // What surely is the same work is merged unless the person says otherwise; what only looks like it is kept.
  let answers = $state<Record<number, Answer>>(
    untrack(() => Object.fromEntries(question.here.map((h) => [h.index, h.sure ? 'merge' : 'both']))),
  );
  let busy = $state(false);
  const others = $derived(question.total - question.here.length);
  const tally = $derived(
    ANSWERS.map(({ answer, label }) => ({
      label,
      count: question.here.filter((h) => answers[h.index] === answer).length,
    })).filter((t) => t.count),
  );

  // A file may hold thousands of what is here: only the rows in view are on the page.
  let scroller: HTMLElement | undefined = $state();
  const { virtual, measure } = virtualRows({
    scroller: () => scroller,
    count: () => rows.length,
    height: () => 66,
  });

  async function send() {
    busy = true;
    await actOn(jobId, { act: 'decide', answers });
    busy = false;
  }
  const all = (some: Here[], answer: Answer) => some.forEach((h) => (answers[h.index] = answer));
</script>

{#snippet effect(words: string, fields: Differing[], which: 'file' | 'yours', against?: 'file' | 'yours')}
  {#if fields.length}
    <p>
      <span class="does">{words}</span>
      {#each fields as f, i (f.field)}{i ? ' · ' : ''}<span class="what">{fieldName(f.field)}</span>
        {against ? `${f[which]} ` : f[which]}{#if against}<span class="against"
            >({against === 'file' ? 'the file' : 'yours'}: {f[against]})</span
          >{/if}{/each}
    </p>
  {/if}
{/snippet}

{#snippet named(words: string, names: string[])}
  <p><span class="does">{words}</span> <span class="what">{names.join(', ')}</span></p>
{/snippet}

<p>
  <strong
    >{question.here.length.toLocaleString('en')} of {question.total.toLocaleString('en')}
    {question.total === 1 ? 'entry' : 'entries'}
    {question.here.length === 1 ? 'is' : 'are'} here already.</strong
  >
  Nothing is added yet.
  {#if others}The other {others === 1 ? 'one' : others.toLocaleString('en')} will be added.{/if}
</p>
{#each kinds as { name, some } (name)}
  <div class="all">
    <span class="small-label">{name}, all {some.length.toLocaleString('en')}</span>
    {#each ANSWERS as { answer, label, says } (answer)}
      <Button
        small
        title={says}
        aria-label="{label} all {some.length} of: {name}"
        onclick={() => all(some, answer)}>{label}</Button
      >
    {/each}
  </div>
{/each}
<div class="rows" bind:this={scroller}>
  <ul style:height="{$virtual.getTotalSize()}px">
    {#each $virtual.getVirtualItems() as row (rows[row.index]?.index ?? row.key)}
      {@const h = rows[row.index]}
      {#if h}
        <li data-index={row.index} style:transform="translateY({row.start}px)" use:measure>
          <div class="entry">
            <span class="line">line {h.line}</span><span class="serif">{h.label}</span>
            <div class="small-label">
              {h.sure ? 'You have' : 'Perhaps'}
              <a class="link" href="/sources/{h.of.id}">{h.of.label}</a>: {h.reason}
            </div>
            {#if h.merging}
              {@const { adds, replaces, keeps, tags, kept } = h.merging}
              <div class="merging">
                {#if [adds, replaces, keeps, tags, kept].every((list) => list.length === 0)}
                  <p>The file says nothing else than you have.</p>
                {:else}
                  <span class="does">Merging</span>
                  <div>
                    {@render effect('adds', adds, 'file')}
                    {@render effect('takes', replaces, 'file', 'yours')}
                    {@render effect('keeps', keeps, 'yours', 'file')}
                    {#if tags.length}{@render named('adds the tags', tags)}{/if}
                    {#if kept.length}{@render named('brings along the fields', kept)}{/if}
                  </div>
                {/if}
              </div>
            {/if}
          </div>
          <fieldset>
            <legend class="sr-only">What to do with {h.label}, line {h.line}</legend>
            {#each ANSWERS as { answer, label, says } (answer)}
              <Radio
                title={says}
                name="{jobId}-{h.index}"
                value={answer}
                group={answers[h.index]}
                onchange={() => (answers[h.index] = answer)}>{label}</Radio
              >
            {/each}
          </fieldset>
        </li>
      {/if}
    {/each}
  </ul>
</div>
<p class="small-label">
  Merge: {ANSWERS[0]!.says}. Skip: {ANSWERS[1]!.says}. Keep both: {ANSWERS[2]!.says}. One undo takes the whole
  import back.
</p>
<div class="go">
  <Button look="main" disabled={busy} onclick={send}>Go on with the import</Button>
  <Button look="quiet" onclick={() => actOn(jobId, 'dismiss')}>Leave it</Button>
  <span class="small-label" aria-live="polite"
    >{tally.map((t) => `${t.label} ${t.count.toLocaleString('en')}`).join(' · ')}{others
      ? ` · add ${others.toLocaleString('en')}`
      : ''}</span
  >
</div>

<style>
  .all,
  .go {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
    margin: 10px 0;
  }
  .all .small-label {
    min-width: 168px;
  }
  .rows {
    max-height: 420px;
    border-block: 1px solid var(--rule);
    overflow: auto;
  }
  ul {
    position: relative;
  }
  li {
    position: absolute;
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    width: 100%;
    gap: 6px 18px;
    padding: 8px 2px;
    border-bottom: 1px solid var(--rule);
    font-size: 13px;
  }
  .entry {
    flex: 1 1 320px;
    min-width: 0;
  }
  .merging {
    display: flex;
    gap: 0.6ch;
    margin-top: 2px;
    color: var(--ink-2);
    overflow-wrap: anywhere;
  }
  .merging > .does {
    flex: none;
  }
  .does,
  .against {
    color: var(--ink-3);
  }
  .what {
    font-weight: 600;
  }
  fieldset {
    display: flex;
    gap: 16px;
    align-items: flex-start;
  }
  .line {
    display: inline-block;
    min-width: 64px;
    color: var(--ink-3);
  }
</style>
