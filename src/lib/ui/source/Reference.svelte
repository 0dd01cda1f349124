<script lang="ts">
  import type { ShownReference } from '$lib/server/lists';

  interface Props {
    reference?: ShownReference | undefined;
    /** What to show until the reference is printed, and when nothing prints. */
    fallback: string;
    /** The field whose parts are lit up. */
    lit?: string | undefined;
    /** Told the field of the part pointed at, or nothing when the pointer leaves. */
    onpoint?: (field: string | undefined) => void;
    onchoose?: (field: string) => void;
    hanging?: boolean;
  }
  let { reference, fallback, lit, onpoint, onchoose, hanging = true }: Props = $props();

  let place: HTMLElement | undefined = $state();

  const fieldAt = (event: Event) =>
    (event.target as HTMLElement).closest<HTMLElement>('[data-field]')?.dataset.field;

  $effect(() => {
    void reference;
    for (const part of place?.querySelectorAll<HTMLElement>('[data-field]') ?? [])
      part.classList.toggle('lit', part.dataset.field === lit);
  });
</script>

<!-- svelte-ignore a11y_no_static_element_interactions, a11y_click_events_have_key_events -->
<div
  bind:this={place}
  class="reference serif"
  class:hanging
  class:pointing={onchoose}
  onmouseover={(e) => onpoint?.(fieldAt(e))}
  onfocus={(e) => onpoint?.(fieldAt(e))}
  onmouseleave={() => onpoint?.(undefined)}
  onclick={(e) => {
    const field = fieldAt(e);
    if (field) onchoose?.(field);
  }}
>
  {#if reference?.html}{@html reference.html}{:else}<span class="waiting">{fallback}</span>{/if}
</div>

<style>
  .reference {
    font-size: 16.5px;
    line-height: 1.36;
    overflow-wrap: anywhere;
  }
  .hanging {
    padding-left: 26px;
    text-indent: -26px;
  }
  .waiting {
    color: var(--ink-3);
  }
  .pointing :global([data-field]) {
    cursor: pointer;
    border-radius: 2px;
  }
  .reference :global(.lit) {
    background: var(--thread-soft);
    box-shadow: 0 0 0 2px var(--thread-soft);
  }
</style>
