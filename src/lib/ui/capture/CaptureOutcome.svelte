<script lang="ts">
  import type { Snippet } from 'svelte';
  import { Button } from '../kit';
  import type { CaptureResult } from '$lib/server/capture';
  import type { Job } from '$lib/server/jobs';
  import ListChooser from './ListChooser.svelte';
  import { actOn, givenTo, undoCapture } from './jobs';

  interface Props {
    /** A capture that has ended well. */
    job: Job;
    /** Where links lead: another window, from the small window one captures in. */
    target?: string;
    /** The other ways on, last in the line of buttons; `still` while it asks something. */
    ways: Snippet<[still: boolean]>;
    /** What stands below what was kept. */
    below?: Snippet;
    onundone?: () => void;
  }
  let { job, target, ways, below, onundone }: Props = $props();
  const small = $derived(!target);
  const result = $derived(job.result as CaptureResult);
  let choosing = $state(false);

  async function undo() {
    if (await undoCapture(job)) onundone?.();
  }
</script>

{#snippet notes(list: string[])}
  {#each list as note (note)}<p class="small-label">{note}</p>{/each}
{/snippet}

{#if result.kind === 'kept'}
  <p class="got" role="status">
    <a href="/intake?at={result.sourceId}" {target}>{result.label}</a>
  </p>
  {#each result.doubles.slice(0, 2) as double (double.id)}
    <p class="pencil-blue">
      {double.sure ? 'Surely one you have' : 'Looks like one you have'}: {double.label} ({double.reason}).
      <a class="link" href="/duplicates?with={result.sourceId}" {target}>Compare</a>
    </p>
  {/each}
  {@render notes(result.notes)}
  {@render below?.()}
  <div class="line">
    {#if !small}<Button look="main" href="/intake?at={result.sourceId}" {target}>Check it</Button>{/if}
    {@render ways(false)}
    {#if !result.toExisting}<Button {small} look="quiet" onclick={undo}>Undo</Button>{/if}
  </div>
{:else if result.kind === 'here'}
  {@const [first] = result.doubles}
  <p class="got">{result.label}</p>
  <p class="pencil-blue">
    You have this already: {first?.label} ({first?.reason}).{#if first?.adds?.length}
      New in it: {first.adds.join(', ')}.{/if} Nothing is saved yet.
  </p>
  {@render notes(result.notes)}
  <div class="line">
    <Button {small} href="/sources/{first?.id}" {target}>Open it</Button>
    {#if result.hasCopy}<Button
        {small}
        look={small ? 'plain' : 'main'}
        onclick={() => actOn(job.id, { act: 'add-copy', sourceId: first!.id })}>Add as another copy</Button
      >{/if}
    <Button {small} onclick={() => actOn(job.id, 'keep-both')}>Keep both</Button>
    {@render ways(true)}
  </div>
{:else if result.kind === 'list'}
  <p class="got">{result.title || givenTo(job)}</p>
  <p class="small-label">A list of {result.works.length} works. Nothing is saved yet.</p>
  <div class="line">
    <Button {small} look="main" onclick={() => (choosing = true)}>Choose which to keep</Button>
    {@render ways(true)}
  </div>
{:else}
  <p class="got" role="status"><a href="/intake" {target}>{result.kept.length} captured from a list</a></p>
  {#each result.failed as failure (failure.title + failure.reason)}
    <p class="small-label">{failure.title}: {failure.reason}</p>
  {/each}
  <div class="line">
    {@render ways(false)}
    {#if result.kept.length}<Button {small} look="quiet" onclick={undo}>Undo</Button>{/if}
  </div>
{/if}

{#if choosing}
  <ListChooser
    {job}
    onclose={() => (choosing = false)}
    onchoose={(picks) => {
      choosing = false;
      void actOn(job.id, { act: 'choose', picks });
    }}
  />
{/if}

<style>
  .line {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
  }
  .got {
    font-family: var(--font-serif);
    overflow: hidden;
    font-size: 1.1em;
    font-weight: 600;
    line-height: 1.3;
    text-overflow: ellipsis;
  }
  .got a:hover {
    text-decoration: underline;
  }
</style>
