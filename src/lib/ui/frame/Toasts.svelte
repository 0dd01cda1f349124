<script lang="ts">
  import { onMount, tick } from 'svelte';
  import { Button, Toast } from '../kit';
  import { attempt, put, toasts } from './toasts.svelte';

  let place: HTMLElement | undefined = $state();
  let over = $state(false);

  // What is said has a place of its own at the foot, which covers nothing. Over an open dialogue it stands as a popover: the
  // rest of the page cannot be reached then.
  let raised = 0;
  $effect(() => {
    const newest = toasts.at(-1)?.id ?? 0;
    const inTheWay = Boolean(document.querySelector('dialog:modal'));
    if (newest > raised) over = inTheWay;
    raised = Math.max(raised, newest);
  });
  $effect(() => {
    void toasts.length;
    if (over) void tick().then(raise);
  });
  /** Once it is a popover: above what was opened since. */
  function raise() {
    if (!place?.popover) return;
    if (place.matches(':popover-open')) place.hidePopover();
    place.showPopover();
  }
  onMount(() => {
    const closed = () => (over = over && Boolean(document.querySelector('dialog:modal')));
    document.addEventListener('close', closed, true);
    return () => document.removeEventListener('close', closed, true);
  });
</script>

<div
  bind:this={place}
  popover={over ? 'manual' : undefined}
  class="toasts"
  class:over
  role="status"
  aria-live="polite"
>
  {#each toasts as toast (toast.id)}
    <Toast
      dismissable={false}
      transition={() => ({ duration: 0 })}
      role={toast.tone === 'trouble' ? 'alert' : 'status'}
      class={toast.tone === 'trouble' ? 'bg-[#7d211b] dark:bg-[#7d211b]' : ''}
    >
      <div class="line">
        <div class="words">
          {toast.text}
          {#if toast.details.length}
            <ul>
              {#each toast.details as detail (detail)}<li>{detail}</li>{/each}
            </ul>
          {/if}
        </div>
        {#if toast.undo}
          <Button
            look="bare"
            class="undo"
            onclick={() => {
              const { undo } = toast;
              put(toast.id);
              void attempt(async () => undo?.());
            }}>Undo</Button
          >
        {/if}
        <Button look="bare" class="close" aria-label="Close" onclick={() => put(toast.id)}>×</Button>
      </div>
    </Toast>
  {/each}
</div>

<style>
  .toasts {
    display: grid;
    flex: 1 1 320px;
    gap: 4px;
    min-width: 0;
  }
  .toasts:not(:has(*)) {
    display: none;
  }
  .toasts {
    padding: 6px 12px;
    border-top: 1px solid var(--rule);
  }
  .toasts.over {
    position: fixed;
    inset: auto auto 18px 50%;
    width: min(520px, calc(100vw - 24px));
    margin: 0;
    padding: 0;
    overflow: visible;
    border: 0;
    background: none;
    transform: translateX(-50%);
  }
  .line {
    display: flex;
    align-items: flex-start;
    gap: 12px;
  }
  .words {
    flex: 1;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  ul {
    margin-top: 4px;
    font-size: 13px;
    list-style: disc inside;
  }
  .line :global(.undo) {
    color: #f3d36b;
    font-weight: 700;
  }
  .line :global(.close) {
    font-size: 18px;
    line-height: 1;
    opacity: 0.8;
  }
</style>
