<script lang="ts">
  import { Search } from '../kit';
  import { debounce } from './client';
  import { narrow, narrowedBy } from './narrowing';

  /** Narrows a view to what has the words typed; they stand in the address as `q`. */
  let { what, wide = false }: { what: string; wide?: boolean } = $props();

  let field: HTMLInputElement | undefined = $state();
  const first = narrowedBy('q');
  // Words that come from elsewhere go into the field; what somebody is typing there stays as it is.
  $effect(() => {
    const words = narrowedBy('q');
    if (field && document.activeElement !== field) field.value = words;
  });
  const set = debounce(() => narrow({ q: field?.value.trim() || undefined }), 200);
</script>

<Search
  look="chip"
  class={wide ? 'w-[230px]' : 'w-[160px]'}
  bind:element={field}
  placeholder="Find in these"
  aria-label="Find in these {what}"
  value={first}
  oninput={set}
/>
