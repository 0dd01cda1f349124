<script lang="ts">
  import { Button, Checkbox } from '../kit';
  import type { Look, ExportFile, Scope, Setting } from '$lib/server/lists';
  import CitekeyDialog from '../source/CitekeyDialog.svelte';
  import { bytesOf, call, copyText, download } from '../frame/client';
  import { may } from '$lib/core/members';
  import { page } from '$app/state';
  import ShareDialog from '../people/ShareDialog.svelte';
  import LossesDialog from './LossesDialog.svelte';
  import ToldApart from './ToldApart.svelte';
  import { narrow } from '../frame/narrowing';
  import { preflight, type Checked } from './preflight';
  import { attempt, done } from '../frame/toasts.svelte';

  /** What is said of a list before it goes out, and the ways it goes out. */
  let {
    entries,
    plain,
    rich,
    scope,
    look,
    style,
    setting,
  }: {
    entries: (Checked & { id: string })[];
    /** The list as plain text and as HTML. */
    plain: string;
    rich: string;
    scope: Scope;
    look: Look;
    /** What the style is called. */
    style: string;
    setting: Setting;
  } = $props();

  const UNDER = [
    ['gist', 'Gist'],
    ['own words', 'Own words'],
    ['quotation', 'Quotations'],
    ['credibility', 'How far it can be trusted'],
  ] as const;
  const DOCUMENTS = [
    ['docx', '.docx'],
    ['html', 'HTML'],
    ['rtf', 'RTF'],
    ['text', 'Text'],
    ['markdown', 'Markdown'],
    ['latex', 'LaTeX'],
  ];
  const RECORDS = [
    ['csl-json', 'CSL-JSON'],
    ['bibtex', 'BibTeX'],
    ['biblatex', 'BibLaTeX'],
    ['ris', 'RIS'],
  ];
  const before = $derived(preflight(entries));
  const annotate = $derived(setting.annotate ?? []);
  let file = $state.raw<ExportFile | undefined>();
  /** The dialogue that says what `file` cannot hold is open. */
  let told = $state(false);
  let keying = $state(false);
  let sharing = $state(false);
  let telling = $state(false);
  /** What a link to this list opens: what it holds later too, where it is of a project or a section. */
  const shared = $derived(
    scope.kind === 'project'
      ? { what: 'project' as const, projectId: scope.projectId }
      : scope.kind === 'section'
        ? { what: 'section' as const, sectionId: scope.sectionId }
        : { what: 'list' as const, ids: entries.map((e) => e.id) },
  );

  async function save(output: string) {
    const made = await attempt(() =>
      call<ExportFile>('POST', '/api/export', { scope, look, output, setting }),
    );
    if (!made) return;
    if (!made.losses.length) return deliver(made);
    file = made;
    told = true;
  }
  function deliver(made: ExportFile) {
    download(made.name, made.mediaType, made.binary ? bytesOf(made.body) : made.body);
    told = false;
    done(`${made.name} is saved.`);
  }
  const copy = (said: string, ...texts: [string, string?]) =>
    attempt(async () => {
      await copyText(...texts);
      done(said);
    });
  function put(kind: string, under: boolean) {
    const others = annotate.filter((k) => k !== kind);
    narrow({ under: (under ? [...others, kind] : others).join(',') || undefined });
  }
</script>

{#snippet outputs(ways: string[][])}
  <div class="ways">
    {#each ways as [output, label] (output)}
      <Button onclick={() => save(output!)}>{label}</Button>
    {/each}
  </div>
{/snippet}

<aside aria-label="Before it goes out">
  <h3>Before it goes out</h3>
  {#if before.length === 0}<p class="pencil-green font-semibold">Every entry prints complete.</p>
  {:else}<p>
      {#each before as { words, pencil }, i (words)}{i ? ', ' : ''}<span class="font-semibold {pencil}"
          >{words}</span
        >{/each}. The fix belongs in the record: choose a mark to go there, or
      <a class="link" href="/proof">mend them together</a>.
    </p>{/if}
  <p class="-ml-2.5">
    <Button
      small
      look="quiet"
      title="Which works would be cited in the same words, and what tells each apart"
      onclick={() => (telling = true)}>Cited alike…</Button
    >
  </p>
  <h3>Under each entry</h3>
  {#each UNDER as [kind, label] (kind)}
    <label class="flex items-center gap-2"
      ><Checkbox checked={annotate.includes(kind)} onchange={(e) => put(kind, e.currentTarget.checked)} />
      {label}</label
    >
  {/each}
  {#if annotate.length}<p class="small-label">Passages kept private are left out.</p>{/if}
  <h3>Copy</h3>
  <div class="ways">
    <Button onclick={() => copy('The list is on the clipboard, with its italics and indents.', plain, rich)}
      >Rich text</Button
    >
    <Button onclick={() => copy('The list is on the clipboard as plain text.', plain)}>Plain text</Button>
  </div>
  <h3>Save as a document</h3>
  {@render outputs(DOCUMENTS)}
  <h3>Save the records</h3>
  {@render outputs(RECORDS)}
  {#if entries.length && may(page.data.role, 'edit')}
    <h3>Share</h3>
    <div class="ways"><Button onclick={() => (sharing = true)}>A link to read…</Button></div>
  {/if}
  <p class="-ml-2.5">
    <Button small look="quiet" onclick={() => (keying = true)}>How citekeys are made…</Button>
  </p>
</aside>

{#if sharing}
  <ShareDialog
    of={shared}
    name={setting.heading || 'References'}
    many={entries.length}
    {look}
    onclose={() => (sharing = false)}
  />
{/if}
{#if telling}<ToldApart {scope} {look} {style} onclose={() => (telling = false)} />{/if}
<LossesDialog bind:open={told} {file} ondeliver={deliver} />
<CitekeyDialog bind:open={keying} ids={entries.map((e) => e.id)} />

<style>
  aside {
    padding: 18px 20px 40px;
    border-left: 1px solid var(--rule);
    background: var(--side);
    overflow-y: auto;
  }
  h3 {
    margin: 18px 0 7px;
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  h3:first-child {
    margin-top: 0;
  }
  label {
    min-height: 26px;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 7px;
  }
  .ways + p {
    margin-top: 6px;
  }
</style>
