<script lang="ts">
  import { Button, Empty, Input, PageHead, Progress, Select } from '$lib/ui/kit';
  import { untrack } from 'svelte';
  import { browser } from '$app/environment';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { HEADING, type Annotation, type AnnotationKind } from '$lib/core/citing';
  import type { Finding } from '$lib/core/proof';
  import { fieldLabel, fieldName } from '$lib/core/source';
  import type { ShownReference, Setting } from '$lib/server/lists';
  import CitedDialog from '$lib/ui/lists/CitedDialog.svelte';
  import { call } from '$lib/ui/frame/client';
  import { filling } from '$lib/ui/capture/filling.svelte';
  import Findings from '$lib/ui/source/Findings.svelte';
  import ListOutputs from '$lib/ui/lists/ListOutputs.svelte';
  import { listScope } from '$lib/ui/lists/list-scope';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { narrow, narrowedBy } from '$lib/ui/frame/narrowing';
  import type { Checked } from '$lib/ui/lists/preflight';
  import Reference from '$lib/ui/source/Reference.svelte';
  import StylePicker from '$lib/ui/lists/StylePicker.svelte';
  import { attempt, done, trouble } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();

  interface List {
    entries: (ShownReference &
      Checked & {
        findings: Finding[];
        heading?: string;
        /** What it is called, when it cannot be printed. */
        name?: string;
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
  let citing = $state(false);
  let asked = 0;
  /** This page, by which the server knows that a list is no longer wanted. */
  const view = Math.random().toString(36).slice(2);
  /** The list is long in coming. */
  let long = $state(false);

  const holds = $derived(listScope(page.url.searchParams, data.projectId, browser ? page.url.hash : ''));
  const group = $derived(narrowedBy('group'));
  const heading = $derived(narrowedBy('heading'));
  const setting = $derived({
    ...(group ? { group: group as Setting['group'] } : {}),
    annotate: narrowedBy('under').split(',').filter(Boolean) as AnnotationKind[],
  });
  const look = $derived({ style: data.style, locale: data.locale });
  const project = $derived(data.projects.find((p) => p.id === data.projectId));
  const isProjectLook = $derived(project && project.style === data.style && project.locale === data.locale);

  // A part has with it all that its entries show: what they asked of the list or the page would be asked of all of them
  // at once.
  const PART = 15;
  const shown = filling(() => {
    const { entries = [], hangingIndent: hanging = true } = list ?? {};
    const style = untrack(() => data.styleTitle);
    return Array.from({ length: Math.ceil(entries.length / PART) }, (_, i) => ({
      entries: entries.slice(i * PART, (i + 1) * PART),
      hanging,
      style,
    }));
  });

  $effect(() => {
    // A change anywhere in the library comes in as new layout data, and the list follows it.
    void data.counts;
    const body = { view, scope: holds.scope, look, setting };
    const mine = ++asked;
    untrack(() => {
      printing = true;
      void call<List>('POST', '/api/references', body)
        .then((answer) => {
          if (mine === asked) list = answer;
        })
        .catch((error: unknown) => {
          if (mine === asked) trouble(error);
        })
        .finally(() => {
          if (mine === asked) printing = false;
        });
    });
  });

  $effect(() => {
    if (!printing) return void (long = false);
    const timer = setTimeout(() => (long = true), 2_000);
    return () => clearTimeout(timer);
  });

  async function keepLook() {
    if (!project) return;
    await attempt(async () => {
      await call('PATCH', `/api/projects/${project.id}`, look);
      done(`${project.name} now prints in ${data.styleTitle}.`);
    });
    await renewed();
  }
</script>

<svelte:head><title>Reference list · Retexa</title></svelte:head>

<PageHead>
  <h1>Reference list</h1>
  <Select
    look="chip"
    aria-label="What the list holds"
    value={holds.name}
    onchange={(e) => {
      if (e.currentTarget.value !== 'text') return narrow({ scope: e.currentTarget.value });
      e.currentTarget.value = holds.name;
      citing = true;
    }}
  >
    {#if holds.name === 'cited'}<option value="cited">The {holds.ids.length} cited in the text</option>
    {:else if holds.ids.length}<option value="selection">The {holds.ids.length} selected</option>{/if}
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
  </Select>
  <StylePicker
    id={data.style}
    title={data.styleTitle}
    locale={data.locale}
    samples={list?.entries.slice(0, 2).map((e) => e.id) ?? []}
    onchoose={(style) => narrow({ style })}
  />
  <Select
    look="chip"
    aria-label="Language"
    value={data.locale}
    onchange={(e) => narrow({ locale: e.currentTarget.value })}
  >
    {#each data.languages as language (language.id)}<option value={language.id}>{language.label}</option
      >{/each}
  </Select>
  <Select
    look="chip"
    aria-label="Grouping"
    value={group}
    onchange={(e) => narrow({ group: e.currentTarget.value || undefined })}
  >
    <option value="">In one list</option>
    <option value="kind">By kind of source</option>
    {#if data.sections.length}<option value="section">By section</option>{/if}
  </Select>
  {#if project && !isProjectLook}<Button small look="quiet" onclick={keepLook}>Use for {project.name}</Button
    >{/if}
  <span class="flex-1"></span>
  <span class="small-label" aria-live="polite"
    >{printing
      ? 'Printing…'
      : list
        ? `${list.entries.length} ${list.entries.length === 1 ? 'entry' : 'entries'}`
        : ''}</span
  >
</PageHead>

{#if list && list.total === 0}
  <Empty>
    <h2>Nothing to print</h2>
    <p>
      There are no sources here yet. <a class="link" href="/sources">Select some</a>, or choose the whole
      library above.
    </p>
  </Empty>
{:else if list && !list.hasList}
  <Empty>
    <h2>This style has no reference list</h2>
    <p>{data.styleTitle} puts everything into its notes. Choose another style above for a list.</p>
  </Empty>
{:else if list}
  <div class="spread">
    <section class="sheet" class:stale={printing} aria-label="References">
      <Input
        look="bare"
        class="heading"
        aria-label="Heading of the list"
        title="The heading, in documents too. Choose it to change it."
        placeholder={HEADING}
        maxlength="200"
        value={heading}
        onchange={(e) => narrow({ heading: e.currentTarget.value.trim() || undefined })}
        onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
      {#each shown.parts as part, p (p)}{#each part.entries as entry, i (i)}
          {#if entry.heading}<h3 class="group">{entry.heading}</h3>{/if}
          <div class="entry" data-source={entry.id}>
            {#if entry.label}<span class="label serif">{entry.label}</span>{/if}
            <div class="reference">
              <Reference
                reference={entry}
                fallback={entry.failed
                  ? `${entry.name} cannot be printed in this style, and is left out of what is copied or saved. Look at its dates and names.`
                  : 'Nothing prints for this source.'}
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
                  lacks {#each entry.missing as field, i (field)}{i ? ', ' : ''}<Button
                      look="link"
                      title="{part.style} prints it; go to {fieldLabel(field)}"
                      onclick={() => goto(`/sources/${entry.id}#f-${field}`)}>{fieldName(field)}</Button
                    >{/each}
                </p>
              {/if}
            </div>
          </div>
        {/each}{/each}
    </section>
    <ListOutputs
      entries={list.entries}
      plain={list.plain}
      rich={list.rich}
      scope={holds.scope}
      {look}
      setting={{ ...setting, heading }}
    />
  </div>
{:else}
  <Empty>
    <h2>Printing the list…</h2>
    <Progress label="Printing the list" />
    {#if long}<p>
        A long list takes its time in a style that is new to it. After that, only what changes is printed
        again.
      </p>{/if}
  </Empty>
{/if}

<CitedDialog bind:open={citing} />

<style>
  .group {
    margin: 18px 200px 6px 30px;
    color: var(--ink);
    font-size: 13px;
    font-weight: 650;
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
  .sheet :global(.heading) {
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
  .sheet :global(.heading::placeholder) {
    color: var(--ink);
    opacity: 1;
  }
  .sheet :global(.heading:hover),
  .sheet :global(.heading:focus) {
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
  @media (max-width: 900px) {
    .sheet {
      background: none;
    }
    .spread {
      display: block;
    }
    .sheet :global(.heading) {
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
  @media print {
    .spread {
      display: block;
    }
    .sheet {
      padding: 0;
      background: none;
      overflow: visible;
    }
    .marks,
    .spread > :global(aside) {
      display: none;
    }
    .entry {
      display: block;
      break-inside: avoid;
    }
    .sheet :global(.heading) {
      width: 100%;
      margin: 0 0 10px;
      border: 0;
    }
  }
</style>
