<script lang="ts">
  import { Button, Dialog, FileButton, Textarea } from '../kit';
  import { call } from '../frame/client';
  import { readDocx } from './read-docx';
  import { narrow } from '../frame/narrowing';
  import { attempt } from '../frame/toasts.svelte';

  /** Takes a text being written and narrows the reference list to what it cites by citekey. */
  let { open = $bindable(false) }: { open: boolean } = $props();

  let text = $state('');
  let found = $state.raw<{ ids: string[]; unknown: string[] } | undefined>();

  async function look() {
    found = await attempt(() => call<{ ids: string[]; unknown: string[] }>('POST', '/api/cited', { text }));
    if (found?.ids.length && !found.unknown.length) print();
  }
  function print() {
    if (!found) return;
    narrow({ scope: 'cited', ids: undefined }, `ids=${found.ids.join(',')}`);
    open = false;
    found = undefined;
  }
  async function take(file: File | undefined) {
    if (!file) return;
    const read = await attempt(async () =>
      /\.docx$/i.test(file.name) ? readDocx(new Uint8Array(await file.arrayBuffer())) : file.text(),
    );
    if (read === undefined) return;
    text = read;
    await look();
  }
</script>

<Dialog bind:open title="Cited in a text" size="md" onclose={() => (found = undefined)}>
  <div class="grid gap-3">
    <p>
      The list will hold exactly what a text cites by citekey: <code>\cite{'{key}'}</code> and its kin in
      LaTeX,
      <code>[@key]</code> in Markdown or a word processor.
    </p>
    <Textarea
      rows="9"
      aria-label="The text"
      placeholder="Paste the text, or open its file"
      bind:value={text}
      oninput={() => (found = undefined)}
    ></Textarea>
    {#if found}
      <p role="status">
        {#if found.ids.length}{found.ids.length}
          {found.ids.length === 1 ? 'source is' : 'sources are'} cited.{:else}No source of the library is
          cited in it.{/if}
        {#if found.unknown.length}
          <span class="pencil-red"
            >{found.unknown.length === 1 ? 'This key has' : 'These keys have'} no source: {found.unknown.join(
              ', ',
            )}.</span
          >
        {/if}
      </p>
    {/if}
    <p class="flex flex-wrap gap-2">
      {#if found?.ids.length}<Button look="main" onclick={print}>Print what is cited</Button>
      {:else}<Button look="main" disabled={!text.trim()} onclick={look}>Find what is cited</Button>{/if}
      <FileButton
        label="Text file"
        accept=".docx,.tex,.md,.markdown,.txt,.qmd,.Rmd"
        onfiles={([given]) => take(given)}>Open a file</FileButton
      >
    </p>
  </div>
</Dialog>
