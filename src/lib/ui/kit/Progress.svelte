<script lang="ts">
  import { Progressbar } from 'flowbite-svelte';
  import { OURS } from './looks';

  /** How far long work is: `done` of `total`, or only that it goes on while `total` is not known. */
  let {
    done,
    total,
    label,
    width = '140px',
  }: { done?: number | undefined; total?: number | undefined; label: string; width?: string } = $props();
  const share = $derived(total ? Math.min(100, ((done ?? 0) / total) * 100) : undefined);
</script>

<div
  class="flex-none overflow-hidden rounded-[3px] bg-rule"
  style:width
  role="progressbar"
  aria-label={label}
  aria-valuemin="0"
  aria-valuemax={total}
  aria-valuenow={total ? (done ?? 0) : undefined}
>
  {#if share === undefined}
    <div class="going"></div>
  {:else}
    <Progressbar
      progress={share}
      size="h-[5px]"
      color={OURS}
      class="rounded-none bg-transparent dark:bg-transparent"
      classes={{ label: 'rounded-[3px] bg-thread' }}
    />
  {/if}
</div>

<style>
  .going {
    height: 5px;
    background: linear-gradient(90deg, var(--rule) 30%, var(--thread) 50%, var(--rule) 70%) 0 0 / 300% 100%;
    animation: going 1.6s linear infinite;
  }
  @keyframes going {
    from {
      background-position: 150% 0;
    }
    to {
      background-position: 0 0;
    }
  }
  @media (prefers-reduced-motion: reduce) {
    .going {
      animation: none;
    }
  }
</style>
