<script lang="ts">
  import { goto } from '$app/navigation';
  import { Button } from '../kit';
  import { openByHand } from '../capture/byhand.svelte';
  import { call } from './client';
  import { doable } from './actions.svelte';
  import { renewed } from './live.svelte';
  import Mark from './Mark.svelte';
  import { attempt, doneWithUndo } from './toasts.svelte';

  /** What stands on the Desk before there is anything: the steps of the work, with the thing to do at each. */
  let { project }: { project?: string | undefined } = $props();
  let busy = $state(false);

  async function sample() {
    if (busy) return;
    busy = true;
    const made = await attempt(() => call<{ ids: string[] }>('POST', '/api/sample', {}));
    busy = false;
    if (!made) return;
    await renewed();
    doneWithUndo('A sample of six sources is here. Throw it away when you have seen enough.', () =>
      call('POST', '/api/sources/bin', { ids: made.ids, binned: true }),
    );
    await goto('/sources');
  }
</script>

<div class="first">
  <span class="mark"><Mark size={34} /></span>
  <h2>Begin with something you read{project ? `, for ${project}` : ''}</h2>
  <ol>
    <li>
      <strong>Capture</strong>
      <p>
        Paste its address or DOI into the field at the top and press Enter. Retexa reads who wrote it, where
        it appeared and when, and keeps the page.
      </p>
      <p class="acts">
        <Button look="main" small onclick={() => doable().get('capture')?.()}>Go to the field</Button>
        <Button small href="/import">Import references you have</Button>
        <Button small onclick={() => openByHand()}>Start one by hand</Button>
      </p>
    </li>
    <li>
      <strong>Check</strong>
      <p>
        In Intake, each capture waits beside its page until you have looked at it: no reading is always right.
      </p>
    </li>
    <li>
      <strong>Read and quote</strong>
      <p>
        Select a sentence in a kept page. It stays with its place, its point and your own words beside it.
      </p>
    </li>
    <li>
      <strong>Tidy up</strong>
      <p>
        What is captured twice is shown side by side under Duplicates, and becomes one with all that hangs on
        both.
      </p>
    </li>
    <li>
      <strong>Print the list</strong>
      <p>
        The reference list prints in any style, for the library, a project, or exactly what your text cites.
      </p>
    </li>
  </ol>
  <!-- It is for an empty library; a project without sources may be in one that has many. -->
  {#if !project}
    <p class="acts">
      <Button onclick={sample} disabled={busy}>Try it with a sample</Button>
      <span class="small-label">Six invented sources, taken away again by one undo.</span>
    </p>
  {/if}
</div>

<style>
  .first {
    max-width: 680px;
    padding: 36px 26px 60px;
    margin: 0 auto;
    color: var(--ink-2);
  }
  .mark {
    display: inline-block;
    padding: 12px;
    border-radius: 8px;
    background: #123644;
  }
  h2 {
    margin: 14px 0 12px;
    color: var(--ink);
    font-family: var(--font-serif);
    font-size: 22px;
  }
  ol {
    position: relative;
    display: grid;
    gap: 14px;
    margin-bottom: 22px;
    counter-reset: step;
  }
  ol::before {
    content: '';
    position: absolute;
    top: 10px;
    bottom: 26px;
    left: 11px;
    border-left: 2px dashed color-mix(in srgb, var(--ink-3) 45%, transparent);
  }
  li {
    position: relative;
    padding-left: 40px;
    counter-increment: step;
  }
  li::before {
    content: counter(step);
    position: absolute;
    left: 0;
    display: grid;
    place-items: center;
    width: 24px;
    height: 24px;
    border: 2px solid color-mix(in srgb, var(--ink-3) 65%, transparent);
    border-radius: 50%;
    background: var(--page);
    color: var(--ink-2);
    font-size: 12px;
    font-weight: 650;
  }
  strong {
    color: var(--ink);
    font-size: 15px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
    margin-top: 6px;
  }
</style>
