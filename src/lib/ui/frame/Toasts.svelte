<script lang="ts">
  import { toasts, put, attempt } from './toasts.svelte';

  let place: HTMLElement | undefined = $state();

  let raised = 0;

  // A popover, so that what is said stands above an open dialogue too: the last one shown is on top. It is shown anew only
  // when a dialogue is in its way, since that takes the focus from its buttons.
  $effect(() => {
    const newest = toasts.at(-1)?.id ?? 0;
    if (!place) return;
    if (newest > raised && document.querySelector('dialog[open]') && place.matches(':popover-open'))
      place.hidePopover();
    raised = Math.max(raised, newest);
    place.showPopover();
  });
</script>

<div bind:this={place} popover="manual" class="toasts" role="status" aria-live="polite">
  {#each toasts as toast (toast.id)}
    <div class="toast" class:trouble={toast.tone === 'trouble'}>
      <div>
        {toast.text}
        {#if toast.details.length}
          <ul>
            {#each toast.details as detail (detail)}<li>{detail}</li>{/each}
          </ul>
        {/if}
      </div>
      {#if toast.undo}
        <button
          class="undo"
          onclick={() => {
            const { undo } = toast;
            put(toast.id);
            void attempt(async () => undo?.());
          }}>Undo</button
        >
      {/if}
      <button class="close" aria-label="Close" onclick={() => put(toast.id)}>×</button>
    </div>
  {/each}
</div>

<style>
  .toasts {
    position: fixed;
    inset: auto auto 18px 50%;
    display: grid;
    gap: 8px;
    width: min(520px, calc(100vw - 24px));
    margin: 0;
    padding: 0;
    overflow: visible;
    border: 0;
    background: none;
    transform: translateX(-50%);
  }
  .toast {
    display: flex;
    align-items: flex-start;
    gap: 12px;
    padding: 10px 14px;
    border-radius: 8px;
    background: #123644;
    color: #fff;
    box-shadow: 0 6px 24px rgb(0 0 0 / 25%);
  }
  .toast > div {
    flex: 1;
  }
  .trouble {
    background: #7d211b;
  }
  ul {
    margin-top: 4px;
    font-size: 13px;
    list-style: disc inside;
  }
  .undo {
    font-weight: 700;
    color: #f3d36b;
    cursor: pointer;
  }
  .close {
    cursor: pointer;
    font-size: 18px;
    line-height: 1;
    opacity: 0.8;
  }
</style>
