<script lang="ts">
  import type { PrintedManuscript } from '$lib/server/drafts';
  import { call, downloadMade } from '../frame/client';
  import { Dialog, FileButton } from '../kit';

  /** Prints the citations of a text that was written elsewhere, and gives the same file back. */
  let { open = $bindable(false), styleName }: { open: boolean; styleName: string } = $props();
  let busy = $state('');
  let made = $state.raw<PrintedManuscript>();
  /** What is said stands here: what lies behind a dialogue is not read. */
  let wrong = $state('');

  async function take(file: File | undefined) {
    if (!file) return;
    [busy, made, wrong] = [file.name, undefined, ''];
    try {
      made = await call<PrintedManuscript>(
        'POST',
        `/api/manuscripts?name=${encodeURIComponent(file.name)}`,
        file,
      );
    } catch (error) {
      wrong = (error as Error).message;
    }
    busy = '';
    if (made?.citations) downloadMade(made);
  }
  const many = (n: number, one: string, more: string) =>
    n === 1 ? one : `${n.toLocaleString('en')} ${more}`;
</script>

<Dialog bind:open title="Written elsewhere" size="md" onclose={() => ([made, wrong] = [undefined, ''])}>
  <div class="all">
    <p>
      Give a text you write in another program and get the same file back, its citations and its list printed
      in
      <b>{styleName}</b>. All else in it stays as it is, and it can be printed again after changes, in any
      style.
    </p>
    <dl>
      <dt><code>[@pell2001, p. 12]</code></dt>
      <dd>cites in brackets; <code>;</code> joins works, words before and after are kept</dd>
      <dt><code>@pell2001 [p. 12]</code></dt>
      <dd>with the author in your sentence; <code>[-@pell2001]</code> without</dd>
      <dt><code>{'{#refs}'}</code></dt>
      <dd>in a paragraph of its own is where the list goes; else it comes last</dd>
      <dt><code>\parencite[12]{'{pell2001}'}</code></dt>
      <dd>and the other commands of biblatex and natbib, in LaTeX</dd>
    </dl>
    <p class="line">
      <FileButton
        look="main"
        label="Manuscript"
        accept=".docx,.odt,.md,.markdown,.tex"
        disabled={!!busy}
        onfiles={([file]) => take(file)}>Choose a manuscript</FileButton
      >
      <span class="small-label">.docx, .odt, .md or .tex, with the citekeys of this library</span>
    </p>
    <div role="status">
      {#if busy}<p>{busy} is being printed…</p>{/if}
      {#if wrong}<p class="pencil-red">{wrong}</p>{/if}
      {#if made}
        <p>
          {#if made.citations}
            {many(made.citations, 'One citation is', 'citations are')} printed in <b>{made.name}</b>, which is
            saved.
          {:else}
            Nothing was printed: {made.missing.length
              ? 'no key in it has a source here.'
              : 'it cites nothing by a citekey.'}
          {/if}
        </p>
        {#if made.missing.length}
          <p class="pencil-red">
            {many(made.missing.length, 'One key has', 'keys have')} no source here; {made.missing.length === 1
              ? 'its citation stays'
              : 'their citations stay'} as written:
          </p>
          <ul>
            {#each made.missing.slice(0, 200) as { key, place }, i (i)}
              <li><code>@{key}</code> <span class="small-label">{place}</span></li>
            {/each}
          </ul>
        {/if}
        {#each made.left as said, i (i)}<p class="pencil-blue">{said}.</p>{/each}
      {/if}
    </div>
  </div>
</Dialog>

<style>
  .all {
    display: grid;
    gap: 12px;
  }
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 4px 12px;
    align-items: baseline;
  }
  dd,
  li {
    font-size: 13px;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
    align-items: center;
  }
  ul {
    max-height: 30vh;
    overflow-y: auto;
  }
</style>
