<script lang="ts">
  import { goto } from '$app/navigation';
  import { Button } from '../kit';
  import CiteField from './CiteField.svelte';
  import type { Writing } from './writing.svelte';

  interface Props {
    writing: Writing;
    projectId: string;
    styleName: string;
    onnote: (id: string) => void;
    /** Puts works in the list that are not cited, and takes others out again. */
    onlisted: (add: string[], drop: string[]) => void;
  }
  /** Under the text: its notes in a style that has them, and the list of exactly what it cites. */
  let { writing, projectId, styleName, onnote, onlisted }: Props = $props();
  let adding = $state(false);
</script>

{#if writing.notes.length}
  <section aria-label="Notes" class="serif">
    <h2>Notes</h2>
    <ol>
      {#each writing.notes as note (note.id)}
        <li>
          <Button look="link" aria-label="Note {note.number}: where it stands" onclick={() => onnote(note.id)}
            >{note.number}</Button
          >
          <span>{@html note.html || '…'}</span>
        </li>
      {/each}
    </ol>
  </section>
{/if}
<section aria-label="References" class="serif">
  <div class="head">
    <h2>References</h2>
    {#if writing.hasList}
      <Button
        small
        look="quiet"
        needs="edit"
        title="A work the list is to have though the text does not cite it"
        onclick={() => (adding = true)}>Add one that is not cited</Button
      >
    {/if}
    {#if adding}
      <CiteField
        {projectId}
        labels={writing.labels}
        at={{ top: 34, left: 0 }}
        onleave={() => (adding = false)}
        onkeep={({ works }) => {
          adding = false;
          onlisted(
            works.map((w) => w.id),
            [],
          );
        }}
      />
    {/if}
  </div>
  {#if writing.failed}
    <p class="pencil-red">{writing.failed}</p>
  {:else if !writing.hasList}
    <p class="hint">{styleName} has no list: what is cited stands in the notes.</p>
  {:else if writing.entries.length === 0}
    <p class="hint">What the text cites is listed here, in {styleName}.</p>
  {/if}
  {#each writing.entries as entry (entry.id)}
    <div class="entry" data-source={entry.id}>
      {#if entry.label}<span class="label">{entry.label}</span>{/if}
      <p class:hanging={writing.hanging && !entry.label}>{@html entry.html}</p>
      <span class="acts">
        {#if entry.listed.length}
          <Button
            small
            look="quiet"
            needs="edit"
            title="It is in the list and not cited"
            onclick={() => onlisted([], entry.listed)}>Not in the list</Button
          >
        {/if}
        <Button
          small
          look="quiet"
          title="Look at its record; what is changed there is changed here"
          onclick={() => goto(`/sources/${entry.id}`)}>Record</Button
        >
      </span>
    </div>
  {/each}
</section>

<style>
  section {
    margin-top: 34px;
    padding-top: 14px;
    border-top: 1px solid var(--rule);
  }
  .head {
    position: relative;
    display: flex;
    gap: 12px;
    align-items: baseline;
    justify-content: space-between;
  }
  h2 {
    margin-bottom: 8px;
    font-size: 18px;
    font-weight: 650;
  }
  li,
  .entry {
    display: flex;
    gap: 10px;
    align-items: baseline;
    padding: 2px 0;
    font-size: 15px;
    line-height: 1.45;
  }
  .entry p {
    flex: 1;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .hanging {
    padding-left: 1.6em;
    text-indent: -1.6em;
  }
  .label {
    min-width: 2.2em;
  }
  .acts {
    opacity: 0;
    font-family: var(--font-sans);
  }
  .entry:hover .acts,
  .acts:focus-within {
    opacity: 1;
  }
  .hint {
    color: var(--ink-3);
  }
</style>
