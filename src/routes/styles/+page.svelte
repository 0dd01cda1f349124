<script lang="ts">
  import { narrow } from '$lib/ui/frame/narrowing';
  import { Button, Empty, PageHead, Trail } from '$lib/ui/kit';
  import StylePicker from '$lib/ui/lists/StylePicker.svelte';
  import TracedStyles from '$lib/ui/lists/TracedStyles.svelte';

  let { data } = $props();
  const samples = $derived(data.sources.slice(0, 2).map(({ id }) => id));
</script>

<svelte:head><title>A style looked into · Retexa</title></svelte:head>

<PageHead>
  <Trail above={[{ href: '/references', name: 'References' }]} />
  <h1>A style looked into</h1>
  <StylePicker
    id={data.of.style}
    title={data.of.title}
    locale={data.locale}
    {samples}
    onchoose={(style) => narrow({ style })}
  />
  <span class="sub">beside</span>
  <StylePicker
    id={data.beside?.style ?? ''}
    title={data.beside?.title ?? 'no other'}
    locale={data.locale}
    {samples}
    onchoose={(beside) => narrow({ beside })}
  />
  {#if data.beside}
    {@const { style } = data.beside}
    <Button small onclick={() => narrow({ style, beside: data.of.style })}>Swap them</Button>
    <Button small look="quiet" onclick={() => narrow({ beside: undefined })}>Alone</Button>
  {/if}
</PageHead>

{#if data.sources.length}
  {#key data.of.style}
    <TracedStyles sources={data.sources} of={data.of} beside={data.beside} />
  {/key}
{:else}
  <Empty>
    <h2>No sources to print</h2>
    <p>A style is looked into on your own sources. <a class="link" href="/intake">Capture some first</a>.</p>
  </Empty>
{/if}
