<script lang="ts">
  import { Modal } from 'flowbite-svelte';
  import { call } from '../frame/client';
  import { readDocx } from './read-docx';
  import { narrow } from '../frame/narrowing';
  import { attempt } from '../frame/toasts.svelte';

  /** Takes a text being written and narrows the reference list to what it cites by citekey. */
  let { open = $bindable(false) }: { open: boolean } = $props();

  let text = $state('');
  let found = $state.raw<{ ids: string[]; unknown: string[] } | undefined>();
  let input: HTMLInputElement | undefined = $state();

  async function look() {
    found = await attempt(() => call<{ ids: string[]; unknown: string[] }>('POST', '/api/cited', { text }));
    if (found?.ids.length && !found.unknown.length) print();
  }
  function print() {
    if (!found) return;
    narrow({ scope: 'cited', ids: found.ids.join(',') });
    open = false;
    found = undefined;
  }
  async function take(file: File | undefined) {
    if (!file) return;
    const read = await attempt(async () =>
      /\.docx$/i.test(file.name) ? readDocx(new Uint8Array(await file.arrayBuffer())) : file.text(),
    );
    if (input) input.value = '';
    if (read === undefined) return;
    text = read;
    await look();
  }
</script>

<Modal bind:open title="Cited in a text" size="md" class="text-ink" onclose={() => (found = undefined)}>
  <div class="grid gap-3">
    <p>
      The list will hold exactly what a text cites by citekey: <code>\cite{'{key}'}</code> and its kin in
      LaTeX,
      <code>[@key]</code> in Markdown or a word processor.
    </p>
    <textarea
      class="field"
      rows="9"
      aria-label="The text"
      placeholder="Paste the text, or open its file"
      bind:value={text}
      oninput={() => (found = undefined)}></textarea>
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
      {#if found?.ids.length}<button class="btn main" onclick={print}>Print what is cited</button>
      {:else}<button class="btn main" disabled={!text.trim()} onclick={look}>Find what is cited</button>{/if}
      <button class="btn" onclick={() => input?.click()}>Open a file</button>
      <input
        bind:this={input}
        type="file"
        class="sr-only"
        accept=".docx,.tex,.md,.markdown,.txt,.qmd,.Rmd"
        aria-label="Text file"
        onchange={(e) => take(e.currentTarget.files?.[0])}
      />
    </p>
  </div>
</Modal>
