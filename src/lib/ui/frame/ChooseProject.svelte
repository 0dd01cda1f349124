<script lang="ts">
  import { Button, Empty } from '../kit';
  import { call } from './client';
  import { renew } from './live.svelte';
  import { attempt } from './toasts.svelte';

  interface Props {
    projects: { id: string; name: string; putAway?: unknown }[];
    heading: string;
    /** What a project is chosen for. */
    what: string;
  }
  /** Said by a view that is of one project where none is chosen. */
  let { projects, heading, what }: Props = $props();
  const choose = (projectId: string) =>
    attempt(async () => {
      await call('POST', '/api/scope', { projectId });
      await renew('*');
    });
</script>

<Empty>
  <h2>{heading}</h2>
  {#if projects.length}
    <p>{what}</p>
    <p class="choose">
      {#each projects.filter((p) => !p.putAway) as { id, name } (id)}
        <Button onclick={() => choose(id)}>{name}</Button>
      {/each}
    </p>
  {:else}
    <p>Make a project first: at the left of the strip at the top.</p>
  {/if}
</Empty>

<style>
  .choose {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin-top: 14px;
  }
</style>
