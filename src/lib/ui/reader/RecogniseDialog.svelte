<script lang="ts">
  import { RECOGNISED, type Recognised } from '$lib/core/documents';
  import { call } from '../frame/client';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button, Checkbox, Dialog } from '../kit';

  interface Props {
    open: boolean;
    copyId: string;
    /** How many passages are kept of the copy. */
    passages: number;
  }
  /** In which languages the text of scanned pages is recognised anew. */
  let { open = $bindable(), copyId, passages }: Props = $props();
  const NAMES = Object.entries(RECOGNISED) as [Recognised, string][];
  let chosen = $state<Recognised[]>(['eng']);

  async function begin() {
    const made = await attempt(() => call('POST', `/api/copies/${copyId}/recognise`, { languages: chosen }));
    if (!made) return;
    open = false;
    done('The text is being recognised, page by page; the copy can be read meanwhile.');
  }
</script>

<Dialog bind:open title="Recognise the text" size="sm">
  <p class="small-label">
    Pages that are pictures are read anew. Choose only the languages that stand on them: each makes it slower.
  </p>
  <div class="languages">
    {#each NAMES as [code, name] (code)}
      <label
        ><Checkbox
          checked={chosen.includes(code)}
          onchange={(e) =>
            (chosen = e.currentTarget.checked ? [...chosen, code] : chosen.filter((c) => c !== code))}
        />
        {name}</label
      >
    {/each}
  </div>
  {#if passages}<p class="small-label">
      {passages === 1 ? 'Its passage is' : `Its ${passages} passages are`} looked for in the new text, and what
      is lost is said.
    </p>{/if}
  <div class="acts">
    <Button look="main" disabled={chosen.length === 0} onclick={begin}>Recognise</Button>
    <Button onclick={() => (open = false)}>Leave it</Button>
  </div>
</Dialog>

<style>
  .languages {
    display: grid;
    gap: 6px;
    margin: 12px 0;
  }
  label {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .acts {
    display: flex;
    gap: 8px;
    margin-top: 14px;
  }
</style>
