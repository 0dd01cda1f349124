<script lang="ts">
  import './note.css';
  import type { ComponentProps } from 'svelte';
  import type NoteEditor from './NoteEditor.svelte';

  /** Where a note is written; its editor comes when it is first needed. */
  let props: ComponentProps<typeof NoteEditor> = $props();
</script>

<div class="note-text">
  {#await import('./NoteEditor.svelte')}
    <div class="coming" role="status"><span class="sr-only">The field is being made ready…</span></div>
  {:then { default: Editor }}
    <Editor {...props} />
  {:catch}
    <p class="pencil-red" role="alert">
      The field could not be loaded. Reload the page when the server is reached.
    </p>
  {/await}
</div>

<style>
  .coming {
    min-height: 86px;
    border: 1px solid var(--edge);
    border-radius: 6px;
    background: var(--page);
  }
</style>
