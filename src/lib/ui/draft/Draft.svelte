<script lang="ts">
  import './text.css';
  import { onMount, untrack } from 'svelte';
  import { SvelteSet } from 'svelte/reactivity';
  import type { Node as PmNode } from '@tiptap/pm/model';
  import type { Block, CitedWork, DraftPart, Material as PassageMaterial } from '$lib/core/drafting';
  import { inOrder } from '$lib/core/outline';
  import type { OutlineItem, OutlineSection } from '$lib/server/projects';
  import { keyFor, offer } from '../frame/actions.svelte';
  import { call } from '../frame/client';
  import { attempt, change } from '../frame/toasts.svelte';
  import { allows, Button } from '../kit';
  import Checks from './Checks.svelte';
  import Clashes from './Clashes.svelte';
  import Contents from './Contents.svelte';
  import { fieldsOf } from './fields.svelte';
  import Fields from './Fields.svelte';
  import FindBar from './FindBar.svelte';
  import Material from './Material.svelte';
  import { outlineBlocks, picturesAmong, putItems, putPictures } from './putting';
  import { findNode, goTo, posOfPart, putBlocks, written } from './text';
  import Toolbar from './Toolbar.svelte';
  import Under from './Under.svelte';
  import Versions from './Versions.svelte';
  import { DRAGGED, writingOf } from './writing.svelte';

  interface Props {
    draft: { id: string; projectId: string; listed: string[] };
    look: { style: string; locale: string; name: string };
    sections: OutlineSection[];
    items: OutlineItem[];
    /** What stands beside the text. */
    beside: string;
    /** A part to go to, by its id. */
    part: string;
  }
  /** The text of a project, written with citations that print as they stand. */
  let { draft, look, sections, items, beside, part }: Props = $props();

  /** Who may only read it sees the text as it is written. */
  const edits = untrack(() => allows('edit'));
  const writing = writingOf({
    edits,
    draft: untrack(() => draft),
    look: untrack(() => look),
    placeholder: !edits
      ? 'Nothing is written yet.'
      : `Write. ${keyFor('draft cite') ?? '“Cite”'} cites; what stands in the outline is beside the text.`,
  });
  let place: HTMLElement | undefined = $state();
  let sheet: HTMLElement | undefined = $state();
  let finding = $state(false);

  const fields = fieldsOf(writing, edits, () => sheet);

  const ordered = $derived(inOrder(sections));
  /** The section of the outline that belongs to the heading one writes under: it was made from it, or has its name. */
  const follows = $derived.by(() => {
    const id = writing.here;
    const pos = id && writing.editor ? posOfPart(writing.editor, id) : undefined;
    const node = pos === undefined ? undefined : writing.editor?.state.doc.nodeAt(pos);
    if (!node) return undefined;
    const of = node.attrs.section as string | null;
    if (of && sections.some((s) => s.id === of)) return of;
    const name = node.textContent.trim().toLowerCase();
    return sections.find((s) => s.name.trim().toLowerCase() === name)?.id;
  });
  const used = $derived.by(() => {
    void writing.sections;
    const found = new SvelteSet<string>();
    writing.editor?.state.doc.descendants((node) => {
      for (const mark of node.marks) if (mark.type.name === 'passage') found.add(String(mark.attrs.id));
      if (node.attrs.passage) found.add(String(node.attrs.passage));
      if (node.type.name === 'cite') for (const w of node.attrs.works as CitedWork[]) found.add(w.id);
      return true;
    });
    return found;
  });

  /** The passage that what one is at came from. */
  const cameFrom = $derived.by((): string => {
    void writing.beat;
    const { editor } = writing;
    if (!editor) return '';
    const { selection } = editor.state;
    const figure = 'node' in selection ? (selection.node as PmNode).attrs.passage : '';
    return String(
      figure || editor.getAttributes('passage').id || editor.getAttributes('blockquote').passage || '',
    );
  });
  let from = $state.raw<{ passage: string; href: string }>();
  // One move of the caret leads there; it is asked for once for each passage one comes to.
  $effect(() => {
    const passage = cameFrom;
    if (!passage || untrack(() => from?.passage) === passage) return;
    void call<{ material: (PassageMaterial & { copyId: string | null })[] }>('POST', '/api/drafts/material', {
      passages: [passage],
    }).then(
      ({ material: [found] }) => {
        if (!found || cameFrom !== passage) return;
        const { copyId, sourceId } = found;
        from = {
          passage,
          href: copyId ? `/copies/${copyId}?passage=${passage}` : `/sources/${sourceId}`,
        };
      },
      () => undefined,
    );
  });

  const acts = {
    cite: fields.cite,
    footnote: fields.footnote,
    formula: fields.formula,
    remark: fields.remark,
    point: fields.point,
    find: () => (finding = true),
  };
  offer(() =>
    writing.open && !edits
      ? { 'draft find': acts.find }
      : writing.open
        ? {
            'draft cite': acts.cite,
            'draft footnote': acts.footnote,
            'draft formula': acts.formula,
            'draft remark': acts.remark,
            'draft point': acts.point,
            'draft find': acts.find,
            'draft material': () =>
              document.querySelector<HTMLElement>('.beside-text [data-item], .beside-text select')?.focus(),
          }
        : {},
  );

  const put = (given: OutlineItem[], at?: number) =>
    edits ? putItems(writing, given, look.style, at) : Promise.resolve();
  /** Puts pictures into the text, and asks for what the last of them shows. */
  async function pictures(files: File[], at?: number) {
    const cite = edits && (await putPictures(writing, draft.id, files, at));
    const there = cite && writing.editor && findNode(writing.editor, (node) => node.attrs.cite === cite);
    if (!there) return;
    // Where the caption stands is known once the picture is there.
    const dom = writing.editor?.view.nodeDOM(there.pos);
    const picture = dom instanceof HTMLElement ? dom.querySelector('img') : null;
    await picture?.decode().catch(() => undefined);
    picture?.scrollIntoView({ block: 'nearest' });
    fields.edit(there.node, there.pos);
  }
  /** Begins with the sections of the outline as headings, and its sentences under them. */
  const begin = (sentences: boolean) =>
    writing.editor && putBlocks(writing.editor, outlineBlocks(ordered, items, sentences));
  function openPart(id: string, cite?: string) {
    const { editor } = writing;
    if (!editor) return;
    const at = cite
      ? findNode(editor, (node) => node.attrs.id === cite || node.attrs.cite === cite)?.pos
      : undefined;
    const pos = at ?? posOfPart(editor, id);
    if (pos !== undefined) goTo(editor, at === undefined ? pos + 1 : pos, at !== undefined);
  }
  function goal(id: string, words: number | null) {
    const { editor } = writing;
    const pos = editor && posOfPart(editor, id);
    if (editor && pos !== undefined)
      editor.view.dispatch(editor.state.tr.setNodeAttribute(pos, 'goal', words));
  }
  const setListed = (add: string[], drop: string[]) =>
    change<{ back?: unknown }>(
      `/api/drafts/${draft.id}/listed`,
      { add, drop },
      'The list holds what you asked for.',
    );
  const now = (): DraftPart[] =>
    writing.editor
      ? written(writing.editor).map(({ id, json }) => ({ id, content: JSON.parse(json) as Block }))
      : [];
  onMount(() => {
    void attempt(() =>
      writing
        .begin(place!, {
          attributes: {
            role: 'textbox',
            'aria-multiline': 'true',
            'aria-label': 'Draft',
            'aria-readonly': String(!edits),
            class: 'serif',
            spellcheck: 'true',
            lang: look.locale,
          },
          handleKeyDown: (_view, event) => {
            if (event.key !== 'Enter' || event.shiftKey || event.ctrlKey || event.altKey) return false;
            return fields.editChosen();
          },
          handleClick: (view, _pos, event) => {
            const of = (event.target as HTMLElement).closest<HTMLElement>('[data-caption-of]')?.dataset
              .captionOf;
            const pos = of && writing.editor ? posOfPart(writing.editor, of) : undefined;
            const node = pos === undefined ? undefined : view.state.doc.nodeAt(pos);
            return Boolean(node && pos !== undefined && fields.edit(node, pos));
          },
          // A table is written in; of anything else what it says is opened.
          handleDoubleClickOn: (_view, _pos, node, pos) =>
            node.type.name !== 'table' && fields.edit(node, pos),
          handleDrop: (view, event) => {
            const given = event.dataTransfer?.getData(DRAGGED);
            const files = picturesAmong(event.dataTransfer?.files);
            if (!given && !files.length) return false;
            event.preventDefault();
            const at = view.posAtCoords({ left: event.clientX, top: event.clientY })?.pos;
            void (given ? put([JSON.parse(given) as OutlineItem], at) : pictures(files, at));
            return true;
          },
          handlePaste: (_view, event) => {
            const files = picturesAmong(event.clipboardData?.files);
            // Words that were copied from elsewhere bring a picture of themselves along.
            if (!files.length || event.clipboardData?.getData('text/plain').trim()) return false;
            void pictures(files);
            return true;
          },
        })
        .then(() => {
          if (part) openPart(part);
          // One writes on at the end, where that is text.
          else
            writing.editor?.commands.focus(writing.editor.state.doc.lastChild?.isTextblock ? 'end' : 'start');
        }),
    );
    return () => writing.end();
  });
  // What the list is to have beside what is cited, here or in another window.
  let listedThere = untrack(() => draft.listed.join());
  $effect(() => {
    const { listed } = draft;
    if (listed.join() === listedThere) return;
    listedThere = listed.join();
    writing.setListed(listed);
  });
  // The project’s style and language are those of the text.
  let shownIn = untrack(() => `${look.style} ${look.locale}`);
  $effect(() => {
    const { style, locale } = look;
    if (`${style} ${locale}` === shownIn) return;
    shownIn = `${style} ${locale}`;
    void attempt(() => writing.setLook(style, locale));
  });
  /** Sends what was typed. */
  export const flush = (): Promise<void> => writing.flush();
  const empty = $derived((void writing.beat, writing.editor?.isEmpty ?? false));
  const STATE = { kept: 'All is kept', waiting: 'Being kept…', asks: 'What was changed elsewhere too waits for you to decide', away: 'The server does not answer. What you write is kept in this browser.', refused: '' } as const; // prettier-ignore
</script>

<div class="beside">
  <div class="page">
    {#if writing.editor}
      {#if edits}<Toolbar
          editor={writing.editor}
          beat={writing.beat}
          {acts}
          onlink={fields.link}
          oncaption={fields.caption}
          onpictures={(files) => void pictures(files)}
        />{/if}
      {#if finding}
        <FindBar editor={writing.editor} beat={writing.beat} onleave={() => (finding = false)} />
      {/if}
    {/if}
    <Clashes {writing} {now} onshow={openPart} />
    <div class="sheet" bind:this={sheet}>
      <div class="measure">
        {#if !writing.open}<p class="small-label" role="status">The text is being opened…</p>{/if}
        <div class="text" bind:this={place}></div>
        {#if edits && writing.open && empty && sections.length}
          <div class="first">
            <p>
              The outline has {sections.length}
              {sections.length === 1 ? 'section' : 'sections'}. Begin with them:
            </p>
            <Button onclick={() => begin(false)}>Its headings</Button>
            <Button onclick={() => begin(true)}>Its headings and your sentences</Button>
          </div>
        {/if}
        {#if writing.open}
          <Under
            {writing}
            projectId={draft.projectId}
            styleName={look.name}
            onlisted={setListed}
            onnote={(id) => openPart('', id)}
          />
        {/if}
      </div>
      <Fields {fields} {writing} projectId={draft.projectId} />
    </div>
    <p class="foot" role="status" data-state={writing.state.is}>
      <span
        >{!edits
          ? 'You read this text; its editors write it'
          : writing.state.is === 'refused'
            ? `Not kept: ${writing.state.why}`
            : STATE[writing.state.is]}</span
      >
      <span>{writing.words.toLocaleString('en')} words</span>
      {#if from && from.passage === cameFrom}<a href={from.href}>Where this came from</a>{/if}
      <span>{writing.entries.length.toLocaleString('en')} in the list · {look.name}</span>
    </p>
  </div>
  <aside class="beside-text" aria-label="Beside the text">
    {#if beside === 'contents'}
      <Contents sections={writing.sections} here={writing.here} onopen={(id) => openPart(id)} ongoal={goal} />
    {:else if beside === 'checks'}
      {#if writing.open}<Checks draftId={draft.id} flush={() => writing.flush()} onopen={openPart} />{/if}
    {:else if beside === 'versions'}
      {#if writing.open}
        <Versions
          draftId={draft.id}
          flush={() => writing.flush()}
          {now}
          onback={(parts) => writing.bringBack(parts)}
        />
      {/if}
    {:else}
      <Material sections={ordered} {items} {follows} {used} onput={(given) => void put(given)} />
    {/if}
  </aside>
</div>

<style>
  .beside {
    display: flex;
    flex: 1;
    min-height: 0;
  }
  .page {
    display: flex;
    flex: 1;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
  }
  .sheet {
    position: relative;
    flex: 1;
    min-height: 0;
    overflow-y: auto;
    background: var(--page);
  }
  .measure {
    max-width: 43rem;
    margin: 0 auto;
    padding: 26px 30px 120px;
  }
  .beside-text {
    display: flex;
    flex: none;
    flex-direction: column;
    width: 340px;
    min-height: 0;
    border-left: 2px solid var(--margin-rule);
    background: var(--side);
  }
  .foot {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
    padding: 5px 20px;
    border-top: 1px solid var(--rule);
    color: var(--ink-3);
    font-size: 12px;
  }
  .foot a {
    color: var(--thread);
    text-decoration: underline;
  }
  .foot[data-state='asks'],
  .foot[data-state='away'],
  .foot[data-state='refused'] {
    color: var(--red-pencil);
  }
  .first {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
    margin-top: 20px;
    color: var(--ink-2);
  }
  @media (max-width: 900px) {
    .beside {
      flex-direction: column;
    }
    .beside-text {
      width: auto;
      max-height: 36vh;
      border-top: 2px solid var(--margin-rule);
      border-left: 0;
    }
  }
</style>
