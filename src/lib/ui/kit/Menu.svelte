<script lang="ts">
  import Button from './Button.svelte';
  import Popover from './Popover.svelte';

  interface Act {
    text: string;
    /** How deep it stands under those before it. */
    depth?: number;
    disabled?: boolean;
    act: () => unknown;
  }
  interface Props {
    /** Tells it from other menus of the page. */
    id: string;
    text: string;
    /** What it is, where the words on it say less. */
    label?: string;
    acts: readonly Act[];
    disabled?: boolean;
    placement?: 'bottom' | 'bottom-start' | 'top';
  }
  /** A button that opens a list of things to do; one is done and it closes. */
  let { id, text, label = text, acts, disabled = false, placement = 'bottom-start' }: Props = $props();
  let open = $state(false);
</script>

<Button {id} {disabled} aria-label={label} aria-haspopup="dialog" aria-expanded={open}>{text} ▾</Button>
<Popover triggeredBy="#{id}" {label} {placement} bind:open>
  <ul>
    {#each acts as one, i (i)}
      <li style="padding-left: {(one.depth ?? 0) * 14}px">
        <Button
          small
          look="quiet"
          class="w-full justify-start!"
          disabled={one.disabled ?? false}
          onclick={() => {
            open = false;
            void one.act();
          }}>{one.text}</Button
        >
      </li>
    {/each}
  </ul>
</Popover>

<style>
  ul {
    max-width: min(340px, 84vw);
    max-height: min(420px, 60vh);
    overflow-y: auto;
  }
</style>
