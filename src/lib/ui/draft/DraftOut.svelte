<script lang="ts">
  import { call, downloadMade, type MadeFile } from '../frame/client';
  import { renew } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button, FileButton, Popover } from '../kit';

  /** The draft of a project as a file, in its style. `flush` sends what was typed before. */
  let {
    draftId,
    template,
    flush,
  }: {
    draftId: string;
    /** What the kept template is called; nothing where none is. */
    template: string;
    flush: () => Promise<void>;
  } = $props();
  const FILES = [
    ['docx', 'keys', '.docx', 'Headings, footnotes, captions, list; its citations can be printed again'],
    ['docx', 'printed', '.docx, plain', 'The same, its citations text like any other'],
    ['odt', 'keys', '.odt', 'The same as OpenDocument, formulas as MathML'],
    ['html', 'printed', 'HTML', 'One page, formulas as MathML'],
    ['markdown', 'printed', 'Markdown', 'Citations as they print'],
    ['markdown', 'keys', 'Markdown with citekeys', 'With references.json beside it'],
    ['latex', 'printed', 'LaTeX', 'Citations as they print'],
    ['latex', 'keys', 'LaTeX with biblatex', 'With references.bib beside it'],
  ] as const;
  let busy = $state(false);
  const id = $props.id();
  async function save(as: string, citing: string, inKept = false) {
    busy = true;
    await attempt(async () => {
      await flush();
      const made = await call<MadeFile>('POST', `/api/drafts/${draftId}/out`, {
        as,
        citing,
        ...(inKept ? { template: true } : {}),
      });
      downloadMade(made);
      done(`${made.name} is saved.`);
    });
    busy = false;
  }
  async function inTemplate(file: File | undefined) {
    if (!file) return;
    busy = true;
    await attempt(async () => {
      await flush();
      const path = `/api/drafts/${draftId}/template?name=${encodeURIComponent(file.name)}`;
      downloadMade(await call<MadeFile>('POST', path, file));
      done(`draft.docx is saved in the styles of ${file.name}.`);
      await renew('projects');
    });
    busy = false;
  }
  const without = () =>
    attempt(async () => {
      await call('DELETE', `/api/drafts/${draftId}/template`, {});
      done(`${template} is not kept with the text any more.`);
      await renew('projects');
    });
  let paper: HTMLIFrameElement | undefined = $state();
  let printing = $state(0);
  /** Hands the page to the browser, which prints it or saves it as PDF. */
  async function print() {
    await attempt(flush);
    printing++;
  }
</script>

{#key printing}
  {#if printing}
    <iframe
      bind:this={paper}
      class="paper"
      title="The text, to be printed"
      tabindex="-1"
      aria-hidden="true"
      src="/api/drafts/{draftId}/print"
      onload={() => paper?.contentWindow?.print()}
    ></iframe>
  {/if}
{/key}

<Button id="draft-out-{id}">Save the text…</Button>
<Popover triggeredBy="#draft-out-{id}" label="Save the text" placement="bottom">
  <div class="out">
    <p class="small-label">The whole text with its citations, notes and list; words to yourself stay here</p>
    <ul>
      {#each FILES as [as, citing, name, what] (name)}
        <li>
          <Button small disabled={busy} onclick={() => save(as, citing)}>{name}</Button>
          <span class="small-label">{what}</span>
        </li>
      {/each}
      {#if template}
        <li>
          <Button small disabled={busy} onclick={() => save('docx', 'keys', true)}
            >.docx in the template</Button
          >
          <span class="small-label"
            >{template}
            <Button small look="quiet" needs="edit" disabled={busy} onclick={without}>Without it</Button
            ></span
          >
        </li>
      {/if}
      <li>
        <FileButton
          small
          label="Template"
          accept=".docx"
          disabled={busy}
          onfiles={([file]) => inTemplate(file)}
          >{template ? '.docx in another…' : '.docx in a template…'}</FileButton
        >
        <span class="small-label">In the styles, page and margins of your university’s .docx</span>
      </li>
      <li>
        <Button small disabled={busy} onclick={print}>Print, or PDF</Button>
        <span class="small-label">Your browser’s own print view saves it as PDF</span>
      </li>
    </ul>
  </div>
</Popover>

<style>
  .paper {
    position: fixed;
    width: 1px;
    height: 1px;
    border: 0;
    opacity: 0;
    pointer-events: none;
  }
  .out {
    display: grid;
    gap: 10px;
    max-width: 420px;
  }
  li {
    display: flex;
    gap: 8px;
    align-items: center;
    padding: 2px 0;
  }
</style>
