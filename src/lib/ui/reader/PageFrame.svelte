<script lang="ts">
  import { onMount } from 'svelte';
  import { call } from '../frame/client';
  import type { LeafLink } from '$lib/server/copies';
  import { openLeaves, type Leaves, type Turn } from './leaves';
  import { quiet, setQuietly } from './quiet.svelte';

  interface Props {
    copyId: string;
    title: string;
    /** Quarter turns of the pages of a document that has them. */
    turn?: Turn;
    /** Told when the page is in the frame, with its leaves if it has any. Scripts of the page never run. */
    onready?: (doc: Document, leaves: Leaves | undefined) => void;
    onlayout?: () => void;
    /** Told which leaf is seen first, counted from 1. */
    onleaf?: (leaf: number) => void;
  }
  let { copyId, title, turn = 0, onready, onlayout, onleaf }: Props = $props();
  let frame: HTMLIFrameElement | undefined = $state();
  let src = $state<string | undefined>();
  let doc: Document | undefined = $state.raw();
  let leaves: Leaves | undefined;
  let scroller: Element | undefined;

  /** What scrolls the frame, which is as tall as all that is in it. */
  function scrollerOf(element: Element): Element {
    for (let up = element.parentElement; up; up = up.parentElement)
      if (/auto|scroll/.test(getComputedStyle(up).overflowY)) return up;
    return document.documentElement;
  }

  onMount(() => {
    quiet.recall();
    scroller = scrollerOf(frame!);
    const dark = () => document.documentElement.classList.contains('dark');
    frame?.addEventListener('load', loaded);
    src = `/copies/${copyId}/page${dark() ? '?dark=1' : ''}`;
    const watch = new MutationObserver(() => doc && setQuietly(doc, quiet.now));
    watch.observe(document.documentElement, { attributeFilter: ['class'] });
    scroller.addEventListener('scroll', onscroll, { passive: true });
    const resized = new ResizeObserver(fit);
    resized.observe(scroller);
    return () => {
      watch.disconnect();
      resized.disconnect();
      scroller?.removeEventListener('scroll', onscroll);
    };
  });

  let waits = false;
  function onscroll() {
    if (waits || !leaves) return;
    waits = true;
    requestAnimationFrame(() => {
      waits = false;
      see();
    });
  }
  function see() {
    if (!leaves || !frame || !scroller) return;
    const top = scroller.getBoundingClientRect().top - frame.getBoundingClientRect().top;
    onleaf?.(leaves.seen(top, top + scroller.clientHeight));
  }

  /** Sets the leaves for the room there is, and the frame as tall as what is in it. */
  function fit() {
    if (!doc?.body || !frame) return;
    const { zoom, fit: fits, twoUp } = quiet.now;
    leaves?.set({ zoom, fit: fits, twoUp, turn, seen: scroller?.clientHeight ?? 800 });
    frame.style.height = `${doc.body.offsetHeight}px`;
    see();
    onlayout?.();
  }
  $effect(() => {
    void turn;
    if (!doc) return;
    setQuietly(doc, quiet.now);
    fit();
  });

  const linksOn = (leaf: number) =>
    call<{ links: LeafLink[] }>('GET', `/copies/${copyId}/leaves/${leaf}/links`).then(
      ({ links }) => links,
      () => [],
    );
  function goTo(leaf: number) {
    if (!leaves || !frame || !scroller) return;
    const offset = frame.getBoundingClientRect().top - scroller.getBoundingClientRect().top;
    scroller.scrollTo({ top: scroller.scrollTop + offset + leaves.topOf(leaf) - 8 });
  }

  /** Shown once it stands where it is to be read, so that nothing that is seen jumps away. */
  let open = $state(false);

  function loaded() {
    const of = frame?.contentDocument;
    if (!of?.body || of.URL === 'about:blank') return;
    leaves = openLeaves(of, copyId, linksOn, goTo);
    // It is set by the effect above; what is marked in it follows in a task of its own.
    doc = of;
    setTimeout(() => taken(of));
  }

  function taken(of: Document) {
    if (frame?.contentDocument !== of) return;
    onready?.(of, leaves);
    open = true;
    let [wide, high] = [0, 0];
    new ResizeObserver(() => {
      const { clientWidth, offsetHeight } = of.body;
      if (clientWidth === wide && offsetHeight === high) return;
      [wide, high] = [clientWidth, offsetHeight];
      fit();
    }).observe(of.body);
    void of.fonts?.ready.then(fit);
  }
</script>

<!-- No allow-scripts: nothing in a stored page ever runs. allow-same-origin lets the reader mark it from outside. -->
<iframe
  bind:this={frame}
  class:open
  {src}
  {title}
  sandbox="allow-same-origin allow-popups allow-popups-to-escape-sandbox"
></iframe>

<style>
  iframe {
    display: block;
    width: 100%;
    min-height: 200px;
    border: 0;
    visibility: hidden;
  }
  iframe.open {
    visibility: visible;
  }
</style>
