<script lang="ts">
  import CopyReader from '$lib/ui/reader/CopyReader.svelte';
  import SoundReader from '$lib/ui/reader/SoundReader.svelte';

  let { data } = $props();
</script>

<svelte:head><title>{data.source.label}, copy · Retexa</title></svelte:head>

{#if data.copy.kind === 'audio'}{#key data.copy.id}<SoundReader {data} />{/key}{:else}<CopyReader
    {data}
  />{/if}
