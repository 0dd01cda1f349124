<script lang="ts">
  import { debounce } from './client';
  import { narrow, narrowedBy } from './narrowing';

  /** Narrows a view to what has the words typed; they stand in the address as `q`. */
  let { what }: { what: string } = $props();

  let field: HTMLInputElement;
  const first = narrowedBy('q');
  // Words that come from elsewhere go into the field; what somebody is typing there stays as it is.
  $effect(() => {
    const words = narrowedBy('q');
    if (document.activeElement !== field) field.value = words;
  });
  const set = debounce(() => narrow({ q: field.value.trim() || undefined }), 200);
</script>

<input
  bind:this={field}
  class="chip"
  type="search"
  placeholder="Find in these"
  aria-label="Find in these {what}"
  value={first}
  oninput={set}
/>

<style>
  input {
    width: 150px;
    cursor: text;
  }
</style>
