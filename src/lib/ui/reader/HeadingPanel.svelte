<script lang="ts">
  import ContentsList from './ContentsList.svelte';
  import type { Heading } from './headings';
  import ReaderPanel from './ReaderPanel.svelte';

  interface Props {
    headings: Heading[];
    /** What the page scrolls in. */
    scroller: HTMLElement | undefined;
  }
  /** The contents of a page or a book in one piece, by its headings. */
  let { headings, scroller }: Props = $props();
  /** How far above a heading the page stops, in pixels. */
  const ABOVE = 12;
  let current = $state(-1);

  // The document stands whole in its frame: heights in it are those of what it scrolls in.
  const topOf = ({ element }: Heading) => element.getBoundingClientRect().top;
  $effect(() => {
    if (!scroller) return;
    const view = scroller;
    let frame = 0;
    const look = () => {
      frame = 0;
      const line = view.scrollTop + ABOVE + 40;
      current = headings.findLastIndex((heading) => topOf(heading) <= line);
    };
    const scrolled = () => (frame ||= requestAnimationFrame(look));
    look();
    view.addEventListener('scroll', scrolled, { passive: true });
    return () => {
      cancelAnimationFrame(frame);
      view.removeEventListener('scroll', scrolled);
    };
  });
</script>

<ReaderPanel label="Contents">
  <ContentsList
    entries={headings.map(({ title, depth }) => ({ title, depth, leads: true }))}
    {current}
    ongo={(i) => scroller?.scrollTo({ top: Math.max(0, topOf(headings[i]!) - ABOVE) })}
    none=""
  />
</ReaderPanel>
