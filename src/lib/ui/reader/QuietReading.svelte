<script lang="ts">
  import { AdjustmentsHorizontalOutline } from 'flowbite-svelte-icons';
  import { Button, Popover, Select } from '../kit';
  import { quiet, type Quiet } from './quiet.svelte';

  /** How the document is set: width, letters, lines, paper. */
  let { pages }: { /** Whether it has pages of its own, which are set already. */ pages: boolean } = $props();
  const CHOICES = {
    width: ['narrow', 'medium', 'wide'],
    face: ['serif', 'sans'],
    spacing: ['close', 'usual', 'open'],
    paper: ['as the rest', 'white', 'warm', 'dark'],
  } as const;
  const LABELS = { width: 'Column', face: 'Letters', spacing: 'Lines', paper: 'Paper' };
  const names = $derived(
    (pages ? ['paper'] : ['width', 'face', 'spacing', 'paper']) as (keyof typeof CHOICES)[],
  );
</script>

<Button look="chip" id="quiet-reading" aria-label="How it is set"
  ><AdjustmentsHorizontalOutline size="sm" /></Button
>
<Popover triggeredBy="#quiet-reading" label="How it is set">
  <div class="set">
    {#if !pages}
      <div class="row">
        <span>Size</span>
        <span class="flex items-center gap-2">
          <Button
            small
            aria-label="Smaller letters"
            disabled={quiet.now.size <= 13}
            onclick={() => quiet.set({ size: quiet.now.size - 1 })}>−</Button
          >
          <output>{quiet.now.size}</output>
          <Button
            small
            aria-label="Larger letters"
            disabled={quiet.now.size >= 28}
            onclick={() => quiet.set({ size: quiet.now.size + 1 })}>+</Button
          >
        </span>
      </div>
    {/if}
    {#each names as name (name)}
      <label class="row"
        ><span>{LABELS[name]}</span>
        <Select
          look="chip"
          aria-label={LABELS[name]}
          value={quiet.now[name]}
          onchange={(e) => quiet.set({ [name]: e.currentTarget.value } as Partial<Quiet>)}
        >
          {#each CHOICES[name] as choice (choice)}<option value={choice}>{choice}</option>{/each}
        </Select></label
      >
    {/each}
    <Button small look="quiet" onclick={quiet.reset}>As it was at first</Button>
  </div>
</Popover>

<style>
  .set {
    display: grid;
    gap: 8px;
    min-width: 210px;
    font-size: 13px;
  }
  .row {
    display: flex;
    gap: 12px;
    align-items: center;
    justify-content: space-between;
  }
</style>
