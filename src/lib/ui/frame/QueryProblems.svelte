<script lang="ts">
  import { parseQuery, problemsIn } from '$lib/core/query';

  /** What of a query cannot be asked as it is written. */
  let { text }: { text: string } = $props();
  const problems = $derived(problemsIn(parseQuery(text)));
</script>

{#each problems as problem (problem)}<p class="pencil-red" role="alert">{problem}</p>{/each}
