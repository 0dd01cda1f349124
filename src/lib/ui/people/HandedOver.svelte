<script lang="ts">
  import { copyText } from '../frame/client';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button, Input } from '../kit';

  /** An address or a secret that is shown once, to be handed over. */
  let { address, words, what = 'link' }: { address: string; words: string; what?: string } = $props();
  const copy = () =>
    attempt(async () => {
      await copyText(address);
      done(`The ${what} is copied.`);
    });
</script>

<div class="handed" role="status">
  <p>{words}</p>
  <div class="line">
    <Input
      readonly
      value={address}
      aria-label="The {what}"
      onfocus={(event: FocusEvent) => (event.currentTarget as HTMLInputElement).select()}
    />
    <Button onclick={copy}>Copy</Button>
  </div>
</div>

<style>
  .handed {
    padding: 10px 12px 12px;
    border: 1px solid var(--thread);
    border-radius: 7px;
    background: var(--side);
    font-size: 13.5px;
  }
  .line {
    display: flex;
    gap: 8px;
    margin-top: 8px;
  }
  .line :global(input) {
    flex: 1;
    min-width: 0;
  }
</style>
