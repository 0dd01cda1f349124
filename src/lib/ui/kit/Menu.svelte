<script lang="ts">
  import { tick } from 'svelte';
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
  let list: HTMLElement | undefined = $state();

  const choices = () => [...(list?.querySelectorAll<HTMLElement>('button:not(:disabled)') ?? [])];
  /** By the keyboard one goes into it at once, to the first or the last. */
  async function enter(event: Event, last = false) {
    event.preventDefault();
    open = true;
    await tick();
    choices()
      .at(last ? -1 : 0)
      ?.focus();
  }
  function onbutton(event: KeyboardEvent) {
    if (['Enter', ' ', 'ArrowDown', 'ArrowUp'].includes(event.key))
      void enter(event, event.key === 'ArrowUp');
  }
  /** Arrows, Home and End go through it; Escape leaves it, as any popover (WAI-ARIA Authoring Practices, menu button). */
  function onlist(event: KeyboardEvent) {
    const all = choices();
    const at = all.indexOf(document.activeElement as HTMLElement);
    const to = { ArrowDown: at + 1, ArrowUp: at - 1 + all.length, Home: 0, End: all.length - 1 }[event.key];
    if (to !== undefined) {
      event.preventDefault();
      event.stopPropagation();
      all[to % all.length]?.focus();
    }
  }
</script>

<Button {id} {disabled} aria-label={label} aria-haspopup="dialog" aria-expanded={open} onkeydown={onbutton}
  >{text} ▾</Button
>
<Popover triggeredBy="#{id}" {label} {placement} bind:open>
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <ul bind:this={list} onkeydown={onlist}>
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
