<script lang="ts">
  import { untrack } from 'svelte';
  import { goto, invalidate } from '$app/navigation';
  import { page } from '$app/state';
  import type { Finding } from '$lib/core/proof';
  import { fieldLabel, fieldName } from '$lib/core/source';
  import type { ShownReference } from '$lib/server/services/printing';
  import type { ExportFile } from '$lib/server/services/references';
  import Findings from '$lib/ui/Findings.svelte';
  import LossesDialog from '$lib/ui/LossesDialog.svelte';
  import Reference from '$lib/ui/Reference.svelte';
  import { HEADING, type Annotation } from '$lib/core/citing';
  import CitekeyDialog from '$lib/ui/CitekeyDialog.svelte';
  import CitedDialog from '$lib/ui/CitedDialog.svelte';
  import StylePicker from '$lib/ui/StylePicker.svelte';
  import { call, copyText, download } from '$lib/ui/client';
  import { DATA } from '$lib/ui/live.svelte';
  import { narrow } from '$lib/ui/narrowing';
  import { preflight, type Checked } from '$lib/ui/preflight';
  import { attempt, done, trouble } from '$lib/ui/toasts.svelte';

  let { data } = $props();

  interface List {
    entries: (ShownReference &
      Checked & {
        findings: Finding[];
        heading?: string;
        annotations?: Annotation[];
      })[];
    hangingIndent: boolean;
    hasList: boolean;
    total: number;
    plain: string;
    rich: string;
  }
  let list = $state.raw<List | undefined>();
  let printing = $state(false);
  let file = $state.raw<ExportFile | undefined>();
  /** The dialogue that says what `file` cannot hold is open. */
  let told = $state(false);
  let asked = 0;

  const selection = $derived(page.url.searchParams.get('ids')?.split(',').filter(Boolean) ?? []);
  const scopeName = $derived(
    page.url.searchParams.get('scope') ??
      (selection.length ? 'selection' : data.projectId ? 'project' : 'library'),
  );
  /** Of `section:ID` and `tag:NAME` what stands behind the colon. */
  const scopeValue = $derived(scopeName.slice(scopeName.indexOf(':') + 1));
  const scope = $derived(
    scopeName === 'selection' || scopeName === 'cited'
      ? { kind: 'selection' as const, ids: selection }
      : scopeName.startsWith('section:')
        ? { kind: 'section' as const, sectionId: scopeValue }
        : scopeName.startsWith('tag:')
          ? {
              kind: 'tag' as const,
              tag: scopeValue,
              ...(data.projectId ? { projectId: data.projectId } : {}),
            }
          : scopeName === 'project' && data.projectId
            ? { kind: 'project' as const, projectId: data.projectId }
            : { kind: 'library' as const },
  );
  const group = $derived(page.url.searchParams.get('group') ?? '');
  const annotate = $derived(page.url.searchParams.get('under')?.split(',').filter(Boolean) ?? []);
  const heading = $derived(page.url.searchParams.get('heading') ?? '');
  const setting = $derived({ ...(group ? { group } : {}), annotate });
  const UNDER = [
    ['gist', 'Gist'],
    ['own words', 'Own words'],
    ['quotation', 'Quotations'],
  ] as const;
  // A long list is put on the page, and renewed there, part by part, so that the page answers meanwhile. A part has with it
  // all that its entries show: what they asked of the list or the page would be asked of all of them at once.
  const PART = 15;
  interface Part {
    entries: List['entries'];
    hanging: boolean;
    /** The name of the style it is printed in. */
    style: string;
  }
  let parts = $state.raw<Part[]>([]);
  $effect(() => {
    const { entries = [], hangingIndent: hanging = true } = list ?? {};
    const style = untrack(() => data.styleTitle);
    const wanted = Array.from({ length: Math.ceil(entries.length / PART) }, (_, i) => ({
      entries: entries.slice(i * PART, (i + 1) * PART),
      hanging,
      style,
    }));
    let at = 0;
    let frame = 0;
    let timer: ReturnType<typeof setTimeout> | undefined;
    // A page that is not seen gets no frames, and is filled all the same.
    const later = () => {
      if (document.hidden) timer = setTimeout(put);
      else frame = requestAnimationFrame(put);
    };
    const put = () => {
      const next = untrack(() => parts).slice();
      if (at < wanted.length) next[at] = wanted[at]!;
      else next.pop();
      at++;
      parts = next;
      if (at < wanted.length || next.length > wanted.length) later();
    };
    if (wanted.length || untrack(() => parts).length) put();
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  });
  let citing = $state(false);
  let keying = $state(false);
  const look = $derived({ style: data.style, locale: data.locale });
  const project = $derived(data.projects.find((p) => p.id === data.projectId));
  const isProjectLook = $derived(project && project.style === data.style && project.locale === data.locale);
  const before = $derived(preflight(list?.entries ?? []));

  $effect(() => {
    // A change anywhere in the library comes in as new layout data, and the list follows it.
    void data.counts;
    const body = { scope, look, setting };
    const mine = ++asked;
    untrack(() => {
      printing = true;
      void call<List>('POST', '/api/references', body)
        .then((answer) => {
          if (mine === asked) list = answer;
        })
        .catch(trouble)
        .finally(() => {
          if (mine === asked) printing = false;
        });
    });
  });

  async function keepLook() {
    if (!project) return;
    await attempt(async () => {
      await call('PATCH', `/api/projects/${project.id}`, look);
      done(`${project.name} now prints in ${data.styleTitle}.`);
    });
    await invalidate(DATA);
  }

  async function save(output: string) {
    const made = await attempt(() =>
      call<ExportFile>('POST', '/api/export', { scope, look, output, setting: { ...setting, heading } }),
    );
    if (!made) return;
    if (!made.losses.length) return deliver(made);
    file = made;
    told = true;
  }
  const bytesOf = (base64: string) => Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
  function deliver(made: ExportFile) {
    download(made.name, made.mediaType, made.binary ? bytesOf(made.body) : made.body);
    told = false;
    done(`${made.name} is saved.`);
  }
</script>

<svelte:head><title>Reference list · Retexa</title></svelte:head>

<header class="head">
  <h1>Reference list</h1>
  <select
    class="chip"
    aria-label="What the list holds"
    value={scopeName}
    onchange={(e) => {
      if (e.currentTarget.value !== 'text') return narrow({ scope: e.currentTarget.value });
      e.currentTarget.value = scopeName;
      citing = true;
    }}
  >
    {#if scopeName === 'cited'}<option value="cited">The {selection.length} cited in the text</option>
    {:else if selection.length}<option value="selection">The {selection.length} selected</option>{/if}
    {#if project}<option value="project">{project.name}</option>{/if}
    <option value="library">The whole library</option>
    <option value="text">Cited in a text…</option>
    {#if data.sections.length}
      <optgroup label="Section">
        {#each data.sections as section (section.id)}<option value="section:{section.id}"
            >{section.name}</option
          >{/each}
      </optgroup>
    {/if}
    {#if data.tags.length}
      <optgroup label="Tag">
        {#each data.tags as tag (tag)}<option value="tag:{tag}">{tag}</option>{/each}
      </optgroup>
    {/if}
  </select>
  <StylePicker
    id={data.style}
    title={data.styleTitle}
    locale={data.locale}
    samples={list?.entries.slice(0, 2).map((e) => e.id) ?? []}
    onchoose={(style) => narrow({ style })}
  />
  <select
    class="chip"
    aria-label="Language"
    value={data.locale}
    onchange={(e) => narrow({ locale: e.currentTarget.value })}
  >
    {#each data.languages as language (language.id)}<option value={language.id}>{language.label}</option
      >{/each}
  </select>
  <select
    class="chip"
    aria-label="Grouping"
    value={group}
    onchange={(e) => narrow({ group: e.currentTarget.value || undefined })}
  >
    <option value="">In one list</option>
    <option value="kind">By kind of source</option>
    {#if data.sections.length}<option value="section">By section</option>{/if}
  </select>
  {#if project && !isProjectLook}<button class="btn quiet small" onclick={keepLook}
      >Use for {project.name}</button
    >{/if}
  <span class="flex-1"></span>
  <span class="small-label" aria-live="polite"
    >{printing
      ? 'Printing…'
      : list
        ? `${list.entries.length} ${list.entries.length === 1 ? 'entry' : 'entries'}`
        : ''}</span
  >
</header>

{#if list && list.total === 0}
  <div class="empty">
    <h2>Nothing to print</h2>
    <p>
      There are no sources here yet. <a class="link" href="/sources">Select some</a>, or choose the whole
      library above.
    </p>
  </div>
{:else if list && !list.hasList}
  <div class="empty">
    <h2>This style has no reference list</h2>
    <p>{data.styleTitle} puts everything into its notes. Choose another style above for a list.</p>
  </div>
{:else if list}
  <div class="spread">
    <section class="sheet" class:stale={printing} aria-label="References">
      <input
        class="heading"
        aria-label="Heading of the list"
        title="The heading, in documents too. Choose it to change it."
        placeholder={HEADING}
        maxlength="200"
        value={heading}
        onchange={(e) => narrow({ heading: e.currentTarget.value.trim() || undefined })}
        onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
      {#each parts as part, p (p)}{#each part.entries as entry, i (i)}
          {#if entry.heading}<h3 class="group">{entry.heading}</h3>{/if}
          <div class="entry" data-source={entry.id}>
            {#if entry.label}<span class="label serif">{entry.label}</span>{/if}
            <div class="reference">
              <Reference
                reference={entry}
                fallback="Nothing prints for this source."
                hanging={part.hanging}
                onchoose={(field) => goto(`/sources/${entry.id}#f-${field}`)}
              />
              {#each entry.annotations ?? [] as note, i (i)}
                <p class="under serif" data-kind={note.kind}>{note.text}</p>
              {/each}
            </div>
            <div class="marks">
              {#if entry.findings.length}
                <a
                  href="/sources/{entry.id}#f-{entry.findings[0]!.field}"
                  title="Go to {fieldLabel(entry.findings[0]!.field)}"
                  ><Findings findings={entry.findings} complete={false} /></a
                >
              {/if}
              {#if entry.twice}
                <Findings
                  findings={[]}
                  questions={[
                    {
                      sign: 'twice',
                      text: 'Twice in the list?',
                      href: `/duplicates?a=${entry.twice.a}&b=${entry.twice.b}`,
                    },
                  ]}
                />
              {/if}
              {#if entry.missing.length}
                <!-- Buttons, since every navigation looks at every link there is, and a long list has thousands. -->
                <p class="lacks">
                  lacks {#each entry.missing as field, i (field)}{i ? ', ' : ''}<button
                      class="link"
                      title="{part.style} prints it; go to {fieldLabel(field)}"
                      onclick={() => goto(`/sources/${entry.id}#f-${field}`)}>{fieldName(field)}</button
                    >{/each}
                </p>
              {/if}
            </div>
          </div>
        {/each}{/each}
    </section>
    <aside class="preflight" aria-label="Before it goes out">
      <h3>Before it goes out</h3>
      {#if before.length === 0}<p class="pencil-green font-semibold">Every entry prints complete.</p>
      {:else}<p>
          {#each before as { words, pencil }, i (words)}{i ? ', ' : ''}<span class="font-semibold {pencil}"
              >{words}</span
            >{/each}. The fix belongs in the record: choose a mark to go there.
        </p>{/if}
      <h3>Under each entry</h3>
      {#each UNDER as [kind, label] (kind)}
        <label class="flex items-center gap-2"
          ><input
            type="checkbox"
            checked={annotate.includes(kind)}
            onchange={(e) => {
              const others = annotate.filter((k) => k !== kind);
              narrow({
                under: (e.currentTarget.checked ? [...others, kind] : others).join(',') || undefined,
              });
            }}
          />
          {label}</label
        >
      {/each}
      {#if annotate.length}<p class="small-label">Passages kept private are left out.</p>{/if}
      <h3>Copy</h3>
      <button
        class="btn"
        onclick={() =>
          attempt(async () => {
            await copyText(list!.plain, list!.rich);
            done('The list is on the clipboard, with its italics and indents.');
          })}>Rich text</button
      >
      <button
        class="btn"
        onclick={() =>
          attempt(async () => {
            await copyText(list!.plain);
            done('The list is on the clipboard as plain text.');
          })}>Plain text</button
      >
      <h3>Save as a document</h3>
      <button class="btn" onclick={() => save('docx')}>.docx</button>
      <button class="btn" onclick={() => save('html')}>HTML</button>
      <button class="btn" onclick={() => save('rtf')}>RTF</button>
      <button class="btn" onclick={() => save('text')}>Text</button>
      <button class="btn" onclick={() => save('markdown')}>Markdown</button>
      <button class="btn" onclick={() => save('latex')}>LaTeX</button>
      <h3>Save the records</h3>
      <button class="btn" onclick={() => save('csl-json')}>CSL-JSON</button>
      <button class="btn" onclick={() => save('bibtex')}>BibTeX</button>
      <button class="btn" onclick={() => save('biblatex')}>BibLaTeX</button>
      <button class="btn" onclick={() => save('ris')}>RIS</button>
      <p class="-ml-2.5">
        <button class="btn quiet small" onclick={() => (keying = true)}>How citekeys are made…</button>
      </p>
    </aside>
  </div>
{:else}
  <p class="small-label p-8">Printing the list…</p>
{/if}

<LossesDialog bind:open={told} {file} ondeliver={deliver} />
<CitedDialog bind:open={citing} />
<CitekeyDialog bind:open={keying} ids={list?.entries.map((e) => e.id) ?? []} />

<style>
  .group {
    margin: 18px 200px 6px 30px;
    color: var(--ink);
    font-size: 13px;
  }
  .under {
    max-width: 66ch;
    margin: 3px 0 3px 26px;
    color: var(--ink-2);
    font-size: 14.5px;
    line-height: 1.4;
  }
  .under[data-kind='gist'] {
    font-family: var(--font-sans, inherit);
    font-size: 13px;
  }
  .lacks {
    color: var(--ink-3);
    font-size: 12px;
  }
  .spread {
    display: grid;
    flex: 1;
    grid-template-columns: minmax(0, 1fr) 268px;
    min-height: 0;
  }
  .sheet {
    padding: 20px 0 60px;
    background: linear-gradient(var(--margin-rule), var(--margin-rule)) no-repeat calc(100% - 196px) 0 / 1px
      100%;
    overflow-y: auto;
  }
  .stale {
    opacity: 0.6;
  }
  .heading {
    display: block;
    width: calc(100% - 230px);
    margin: 0 200px 10px 30px;
    padding: 2px 8px;
    border: 1px solid transparent;
    border-radius: 5px;
    background: transparent;
    font-family: var(--font-serif);
    font-size: 18px;
    font-weight: 600;
    text-align: center;
  }
  .heading::placeholder {
    color: var(--ink);
    opacity: 1;
  }
  .heading:hover,
  .heading:focus {
    border-color: var(--edge);
  }
  .entry {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr) 196px;
    gap: 0 10px;
    content-visibility: auto;
    contain-intrinsic-size: auto 56px;
  }
  .label {
    grid-column: 1;
    min-width: 30px;
    padding: 4px 0 4px 30px;
    font-size: 16.5px;
    line-height: 1.36;
  }
  .reference {
    grid-column: 2;
    max-width: 720px;
    padding: 4px 20px 6px 0;
  }
  .entry:not(:has(.label)) .reference {
    grid-column: 1 / 3;
    padding-left: 30px;
  }
  .marks {
    grid-column: 3;
    padding: 5px 10px 4px 14px;
  }
  .preflight {
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
  .preflight label {
    min-height: 26px;
  }
  .preflight .btn {
    margin: 0 4px 6px 0;
  }
  @media (max-width: 900px) {
    .sheet {
      background: none;
    }
    .spread {
      display: block;
    }
    .heading {
      width: calc(100% - 32px);
      margin: 0 16px 10px;
    }
    .entry {
      grid-template-columns: auto minmax(0, 1fr);
    }
    .marks {
      grid-column: 2;
      border: 0;
    }
    .marks:not(:has(*)) {
      display: none;
    }
  }
</style>
