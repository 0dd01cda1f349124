<script lang="ts">
  import { onMount } from 'svelte';
  import { layLeaves } from './leaves';

  interface Props {
    copyId: string;
    title: string;
    /** Told when the page is in the frame and again when its layout changed. Scripts of the page never run. */
    onready?: (doc: Document) => void;
    onlayout?: () => void;
  }
  let { copyId, title, onready, onlayout }: Props = $props();
  let frame: HTMLIFrameElement | undefined = $state();
  let src = $state<string | undefined>();

  onMount(() => {
    const dark = () => document.documentElement.classList.contains('dark');
    frame?.addEventListener('load', loaded);
    src = `/copies/${copyId}/page${dark() ? '?dark=1' : ''}`;
    const watch = new MutationObserver(() =>
      frame?.contentDocument?.documentElement.classList.toggle('dark', dark()),
    );
    watch.observe(document.documentElement, { attributeFilter: ['class'] });
    return () => watch.disconnect();
  });

  function loaded() {
    const doc = frame?.contentDocument;
    if (!doc?.body || !frame || doc.URL === 'about:blank') return;
    const lay = layLeaves(doc, copyId);
    const fit = () => {
      lay();
      if (frame?.contentDocument?.body) frame.style.height = `${frame.contentDocument.body.offsetHeight}px`;
      onlayout?.();
    };
    new ResizeObserver(fit).observe(doc.body);
    void doc.fonts?.ready.then(fit);
    fit();
    onready?.(doc);
  }
</script>

<!-- No allow-scripts: nothing in a stored page ever runs. allow-same-origin lets the reader mark it from outside. -->
<iframe
  bind:this={frame}
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
  }
</style>
