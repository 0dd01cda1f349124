<script lang="ts">
  import type { Run } from '$lib/core/citing';

  /**
   * A printed reference whose parts can be pointed at, one by one: by the pointer, or by the arrows once it has the focus.
   * `at` is the part pointed at.
   */
  let {
    runs,
    label,
    at,
    onpoint,
  }: { runs: Run[]; label: string; at: number | undefined; onpoint: (at: number) => void } = $props();
  const id = $props.id();

  function onkeydown(event: KeyboardEvent) {
    const next = {
      ArrowRight: Math.min(runs.length - 1, (at ?? -1) + 1),
      ArrowLeft: Math.max(0, (at ?? 1) - 1),
      Home: 0,
      End: runs.length - 1,
    }[event.key];
    if (next === undefined) return;
    event.preventDefault();
    onpoint(next);
  }
  function onclick(event: MouseEvent) {
    const part = (event.target as HTMLElement).closest<HTMLElement>('[data-part]');
    if (part) onpoint(Number(part.dataset.part));
  }
</script>

<!-- What stands between the parts would print, so that they stand without blanks. -->
<div
  class="line serif"
  role="listbox"
  tabindex="0"
  aria-orientation="horizontal"
  aria-label={label}
  aria-activedescendant={at === undefined ? undefined : `${id}-${at}`}
  {onkeydown}
  {onclick}
>
  {#each runs as run, i (i)}<span
      id="{id}-{i}"
      role="option"
      aria-selected={i === at}
      aria-label={run.text.trim() ? undefined : 'a blank'}
      data-part={i}
      class:italic={run.italic}
      class:bold={run.bold}
      class:caps={run.smallCaps}
      class:under={run.underline}
      class:raised={run.raised}
      class:lowered={run.lowered}>{run.text}</span
    >{/each}
</div>

<style>
  .line {
    padding: 2px 4px;
    border-radius: 4px;
    font-size: 15px;
    line-height: 1.5;
    overflow-wrap: anywhere;
    cursor: default;
  }
  span {
    border-radius: 3px;
    white-space: pre-wrap;
    cursor: pointer;
  }
  span:hover {
    background: var(--thread-soft);
  }
  span[aria-selected='true'] {
    background: var(--thread-soft);
    box-shadow: 0 2px 0 var(--thread);
  }
  .italic {
    font-style: italic;
  }
  .bold {
    font-weight: 700;
  }
  .caps {
    font-variant: small-caps;
  }
  .under {
    text-decoration: underline;
  }
  .raised,
  .lowered {
    font-size: 0.75em;
    vertical-align: super;
  }
  .lowered {
    vertical-align: sub;
  }
</style>
