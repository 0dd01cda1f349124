<script lang="ts">
  import { toasts, put, attempt } from './toasts.svelte';
</script>

<div class="toasts" role="status" aria-live="polite">
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
    z-index: 60;
    bottom: 18px;
    left: 50%;
    display: grid;
    gap: 8px;
    width: min(520px, calc(100vw - 24px));
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
