<script lang="ts">
  import { Button, Empty } from '$lib/ui/kit';
  import { page } from '$app/state';
</script>

<svelte:head>
  <title>{page.status} · Retexa</title>
  <meta name="retexa-status" content={String(page.status)} />
</svelte:head>

<Empty>
  <h2>{page.status === 404 ? 'Nothing is here' : 'This did not work'}</h2>
  <p>{page.error?.message}</p>
  {#if page.error?.details?.length}
    <ul class="mt-2 list-inside list-disc">
      {#each page.error.details as detail (detail)}<li>{detail}</li>{/each}
    </ul>
  {/if}
  {#if page.error?.id}<p class="small-label mt-2">If you report it, give the number {page.error.id}.</p>{/if}
  <p class="mt-4 flex gap-2">
    <Button look="main" href="/">Go to the Desk</Button>
    <Button onclick={() => location.reload()}>Try again</Button>
  </p>
</Empty>
