<script lang="ts">
  import { Button, Dialog } from '../kit';
  import { fieldName } from '$lib/core/source';
  import type { ExportFile } from '$lib/server/lists';

  /** What a file cannot hold, said before it is saved. */
  let {
    open = $bindable(false),
    file,
    ondeliver,
  }: { open: boolean; file: ExportFile | undefined; ondeliver: (file: ExportFile) => void } = $props();

  const SHOWN = 60;
</script>

<Dialog bind:open title="{file?.name ?? 'The file'} cannot hold everything" size="md">
  {#if file}
    {@const made = file}
    <div class="losses">
      <p>
        {made.losses.length === 1 ? 'One value stays' : `${made.losses.length} values stay`} behind. Nothing is
        lost in the library.
      </p>
      <ul>
        {#each made.losses.slice(0, SHOWN) as loss, i (i)}
          <li><span class="serif">{loss.label}</span>, {fieldName(loss.field)}: {loss.reason}</li>
        {/each}
      </ul>
      {#if made.losses.length > SHOWN}<p>and {made.losses.length - SHOWN} more.</p>{/if}
      <p class="flex gap-2">
        <Button look="main" onclick={() => ondeliver(made)}>Save it all the same</Button>
        <Button onclick={() => (open = false)}>Leave it</Button>
      </p>
    </div>
  {/if}
</Dialog>

<style>
  .losses {
    display: grid;
    gap: 10px;
  }
  .losses ul {
    max-height: 190px;
    padding-left: 14px;
    list-style: disc;
    overflow-y: auto;
  }
</style>
