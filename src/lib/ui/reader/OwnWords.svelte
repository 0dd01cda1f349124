<script lang="ts">
  import { overlap, RUN_LIMIT, type Borrowed } from '$lib/core/passages';
  import { Textarea, Toggle } from '../kit';

  interface Props {
    /** The words of the work, which one's own are held against. */
    original: string;
    value: string;
    /** Whether the original is covered, and what covers it; without, it cannot be. */
    covered?: boolean;
    oncover?: ((covered: boolean) => void) | undefined;
  }
  /** One's own words of a passage: runs that are still the author's are marked in them while they are typed. */
  let { original, value = $bindable(), covered = false, oncover }: Props = $props();

  const id = $props.id();
  const taken = $derived(overlap(original, value));
  const percent = $derived(Math.round(taken.share * 100));
  /** How long the runs are, the longest first: `9 and 6`. */
  const counts = $derived(
    taken.runs
      .map(({ words }) => words)
      .sort((a, b) => b - a)
      .join(', ')
      .replace(/, (\d+)$/, ' and $1'),
  );
  let field: HTMLTextAreaElement | undefined = $state();
  let shade: HTMLElement | undefined = $state();

  /** The words in pieces, those that stand in the original in a row among them. */
  function pieces(text: string, runs: readonly Borrowed[]): { text: string; words?: number }[] {
    const parts: { text: string; words?: number }[] = [];
    let at = 0;
    for (const { start, end, words } of runs) {
      parts.push({ text: text.slice(at, start) }, { text: text.slice(start, end), words });
      at = end;
    }
    return [...parts, { text: text.slice(at) }].filter((part) => part.text);
  }

  /** The shade lies on the field letter for letter: it takes over what sets letters, and how far the field is scrolled. */
  const SET = ['font', 'letterSpacing', 'lineHeight', 'padding', 'textIndent', 'tabSize'] as const;
  $effect(() => {
    if (!field || !shade) return;
    const [from, to] = [field, shade];
    const fit = () => {
      const style = getComputedStyle(from);
      for (const name of SET) to.style[name] = style[name];
      Object.assign(to.style, {
        top: `${from.offsetTop + from.clientTop}px`,
        left: `${from.offsetLeft + from.clientLeft}px`,
        width: `${from.clientWidth}px`,
        height: `${from.clientHeight}px`,
      });
      to.scrollTop = from.scrollTop;
    };
    const watch = new ResizeObserver(fit);
    watch.observe(from);
    from.addEventListener('scroll', fit);
    fit();
    return () => {
      watch.disconnect();
      from.removeEventListener('scroll', fit);
    };
  });
</script>

<div class="own">
  <div class="head">
    <label class="small-label" for={id}>In my own words</label>
    {#if oncover}<span
        class="cover"
        data-tip="Write it from memory: the passage cannot be read in the document meanwhile"
        ><Toggle checked={covered} onchange={(e) => oncover(e.currentTarget.checked)}
          >Cover the original</Toggle
        ></span
      >{/if}
  </div>
  <div class="field">
    <Textarea {id} rows="3" bind:element={field} bind:value aria-describedby="{id}-said" />
    <div class="shade" bind:this={shade} aria-hidden="true">
      {#each pieces(value, taken.runs) as part, i (i)}{#if part.words}<mark>{part.text}</mark
          >{:else}{part.text}{/if}{/each}
    </div>
  </div>
  <p id="{id}-said" class="said" class:close={taken.tooClose} role="status">
    {#if !value.trim()}{:else if taken.tooClose}{counts} words in a row are the author’s: {percent} % of what you
      wrote. Say it otherwise, or set it in quotation marks.
    {:else if taken.longest > 2}In your own words; at most {taken.longest} in a row are the author’s (under {RUN_LIMIT}).
    {:else}In your own words.{/if}
  </p>
</div>

<style>
  .head {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 8px;
  }
  .field {
    position: relative;
  }
  .shade {
    position: absolute;
    color: transparent;
    white-space: pre-wrap;
    overflow: hidden;
    overflow-wrap: break-word;
    pointer-events: none;
  }
  mark {
    border-radius: 2px;
    background: color-mix(in srgb, var(--red-pencil) 18%, transparent);
    color: transparent;
    text-decoration: underline wavy 1px var(--red-pencil);
    text-underline-offset: 3px;
  }
  .said {
    min-height: 17px;
    color: var(--green-pencil);
    font-size: 12px;
    font-weight: 600;
  }
  .said.close {
    color: var(--red-pencil);
  }
</style>
