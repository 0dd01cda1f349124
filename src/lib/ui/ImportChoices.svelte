<script lang="ts">
  import { untrack } from 'svelte';
  import type { Answer, ImportQuestion } from '$lib/server/services/imports';
  import { call } from './client';
  import { attempt } from './toasts.svelte';

  /** The entries of an import that are in the library already, with what to do with each. */
  let { jobId, question }: { jobId: string; question: ImportQuestion } = $props();

  const ANSWERS: { answer: Answer; label: string; says: string }[] = [
    { answer: 'merge', label: 'Merge', says: 'the source you have gets what the file knows besides' },
    { answer: 'skip', label: 'Skip', says: 'the entry is left out' },
    { answer: 'both', label: 'Keep both', says: 'the entry becomes a source of its own' },
  ];
  // What surely is the same work is merged unless the person says otherwise; what only looks like it is kept.
  let answers = $state<Record<number, Answer>>(
    untrack(() => Object.fromEntries(question.here.map((h) => [h.index, h.sure ? 'merge' : 'both']))),
  );
  let busy = $state(false);
  const others = $derived(question.total - question.here.length);

  async function send() {
    busy = true;
    await attempt(() => call('POST', `/api/jobs/${jobId}`, { act: 'decide', answers }));
    busy = false;
  }
  const all = (answer: Answer) => question.here.forEach((h) => (answers[h.index] = answer));
</script>

<p>
  <strong
    >{question.here.length} of {question.total.toLocaleString('en')}
    {question.total === 1 ? 'entry' : 'entries'}
    {question.here.length === 1 ? 'is' : 'are'} here already.</strong
  >
  Nothing is added yet.
  {#if others}The other {others.toLocaleString('en')} will be added.{/if}
</p>
<div class="all">
  <span class="small-label">For all of them</span>
  {#each ANSWERS as { answer, label, says } (answer)}
    <button class="btn small" title={says} onclick={() => all(answer)}>{label}</button>
  {/each}
</div>
<ul>
  {#each question.here as h (h.index)}
    <li>
      <div>
        <span class="line">line {h.line}</span><span class="serif">{h.label}</span>
        <div class="small-label">
          {h.sure ? 'You have' : 'Perhaps'}
          <a class="link" href="/sources/{h.of.id}">{h.of.label}</a>: {h.reason}
        </div>
      </div>
      <fieldset>
        <legend class="sr-only">What to do with {h.label}, line {h.line}</legend>
        {#each ANSWERS as { answer, label, says } (answer)}
          <label title={says}
            ><input
              type="radio"
              name="{jobId}-{h.index}"
              value={answer}
              bind:group={answers[h.index]}
            />{label}</label
          >
        {/each}
      </fieldset>
    </li>
  {/each}
</ul>
<p class="small-label">
  Merge: {ANSWERS[0]!.says}. Skip: {ANSWERS[1]!.says}. Keep both: {ANSWERS[2]!.says}. One undo takes the whole
  import back.
</p>
<div class="go">
  <button class="btn main" disabled={busy} onclick={send}>Go on with the import</button>
  <button
    class="btn quiet"
    onclick={() => attempt(() => call('POST', `/api/jobs/${jobId}`, { act: 'dismiss' }))}>Leave it</button
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
  ul {
    max-height: 420px;
    overflow: auto;
    border-block: 1px solid var(--rule);
  }
  li {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 6px 18px;
    padding: 8px 2px;
    font-size: 13px;
  }
  li + li {
    border-top: 1px solid var(--rule);
  }
  li > div {
    flex: 1 1 320px;
  }
  fieldset {
    display: flex;
    gap: 12px;
    align-items: center;
  }
  label {
    display: flex;
    min-height: 26px;
    gap: 5px;
    align-items: center;
  }
  .line {
    display: inline-block;
    min-width: 64px;
    color: var(--ink-3);
  }
</style>
