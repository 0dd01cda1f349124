<script lang="ts">
  import './text.css';
  import { onMount, untrack } from 'svelte';
  import { SvelteSet } from 'svelte/reactivity';
  import type { Node as PmNode } from '@tiptap/pm/model';
  import { v7 } from 'uuid';
  import {
    blockWords,
    placed,
    textOfBlock,
    type Block,
    type CitedWork,
    type DraftPart,
    type Inline,
    type Material as PassageMaterial,
  } from '$lib/core/drafting';
  import { inOrder } from '$lib/core/outline';
  import type { OutlineItem, OutlineSection } from '$lib/server/projects';
  import { keyFor, offer } from '../frame/actions.svelte';
  import { call } from '../frame/client';
  import Differences from '../frame/Differences.svelte';
  import { attempt, change } from '../frame/toasts.svelte';
  import { allows, Button, Select } from '../kit';
  import Checks from './Checks.svelte';
  import CiteField from './CiteField.svelte';
  import Contents from './Contents.svelte';
  import FindBar from './FindBar.svelte';
  import FootnoteField from './FootnoteField.svelte';
  import Material from './Material.svelte';
  import { mathIn } from './maths';
  import SmallField from './SmallField.svelte';
  import { findNode, goTo, posOfPart, blankBefore, putBlocks, putInline, written } from './text';
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

  /** What is typed in a small field beside the text. */
  type Field =
    | { what: 'cite'; at?: number; given?: { works: CitedWork[]; named: boolean } }
    | { what: 'footnote'; at: number; content: Inline[] }
    | { what: 'formula' | 'formulaBlock'; at?: number; value: string }
    | { what: 'caption'; at: number; value: string }
    | { what: 'remark'; value: string; from: number; to: number }
    | { what: 'link'; value: string }
    | { what: 'point' };
  let field = $state.raw<Field & { top: number; left: number; above: boolean }>();

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

  /** Opens a small field below where the caret, or a place in the text, is. */
  function openField(what: Field, at?: number): void {
    const { editor } = writing;
    if (!editor || !sheet) return;
    const pos = at ?? editor.state.selection.from;
    const spot = editor.view.coordsAtPos(Math.min(pos, editor.state.doc.content.size));
    const around = sheet.getBoundingClientRect();
    // Where there is more room above, it opens upwards.
    const above = spot.bottom - around.top > around.height * 0.55;
    const top = (above ? spot.top - 8 : spot.bottom + 8) - around.top + sheet.scrollTop;
    const left = Math.max(8, Math.min(spot.left - around.left - 40, around.width - 480));
    field = { ...what, top, left, above };
  }
  /** Goes back to the text, behind what was chosen: who writes on does not write over it. */
  const close = () => {
    field = undefined;
    const { editor } = writing;
    if (!editor) return;
    if ('node' in editor.state.selection) editor.commands.setTextSelection(editor.state.selection.to);
    editor.commands.focus();
  };
  const chosenNode = (): { node: PmNode; pos: number } | undefined => {
    const selection = writing.editor?.state.selection;
    return selection && 'node' in selection
      ? { node: selection.node as PmNode, pos: selection.from }
      : undefined;
  };
  /** Opens what is chosen for changing; false where it is nothing that can be. */
  function edit(node: PmNode, pos: number): boolean {
    if (!edits) return false;
    const { attrs } = node;
    switch (node.type.name) {
      case 'cite':
        openField({ what: 'cite', at: pos, given: attrs as { works: CitedWork[]; named: boolean } }, pos);
        return true;
      case 'footnote':
        openField({ what: 'footnote', at: pos, content: attrs.content as Inline[] }, pos);
        return true;
      case 'formula':
      case 'formulaBlock':
        openField({ what: node.type.name, at: pos, value: String(attrs.tex) }, pos);
        return true;
      case 'figure':
        openField({ what: 'caption', at: pos, value: String(attrs.caption) }, pos);
        return true;
      default:
        return false;
    }
  }

  const acts = {
    cite: () => {
      const chosen = chosenNode();
      if (chosen?.node.type.name === 'cite') edit(chosen.node, chosen.pos);
      else openField({ what: 'cite' });
    },
    footnote: () => {
      const { editor } = writing;
      if (!editor) return;
      editor
        .chain()
        .focus()
        .insertContent({ type: 'footnote', attrs: { id: v7(), content: [] } })
        .run();
      const at = editor.state.selection.from - 1;
      openField({ what: 'footnote', at, content: [] }, at);
    },
    formula: () => {
      const paragraph = writing.editor?.state.selection.$from.parent;
      openField({ what: paragraph?.content.size === 0 ? 'formulaBlock' : 'formula', value: '' });
    },
    remark: () => {
      const { editor } = writing;
      if (!editor) return;
      // Of what is selected, or of the word one is at.
      if (editor.state.selection.empty) {
        const { parent, parentOffset, pos } = editor.state.selection.$from;
        const text = parent.textBetween(0, parent.content.size, undefined, '\ufffc');
        const before = /\S*$/.exec(text.slice(0, parentOffset))![0].length;
        const after = /^\S*/.exec(text.slice(parentOffset))![0].length;
        editor.commands.setTextSelection({ from: pos - before, to: pos + after });
      }
      const { from, to } = editor.state.selection;
      openField({ what: 'remark', value: String(editor.getAttributes('remark').words ?? ''), from, to });
    },
    point: () => openField({ what: 'point' }),
    find: () => (finding = true),
  };
  const link = () =>
    openField({ what: 'link', value: String(writing.editor?.getAttributes('link').href ?? '') });
  function caption() {
    const { editor } = writing;
    const at = editor && editor.state.selection.$from.before(1);
    const node = at === undefined ? undefined : editor?.state.doc.nodeAt(at);
    if (node && at !== undefined) openField({ what: 'caption', at, value: String(node.attrs.caption ?? '') });
  }
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

  function keepCite(attrs: { works: CitedWork[]; named: boolean }) {
    const { editor } = writing;
    if (!editor || field?.what !== 'cite') return;
    const { at } = field;
    field = undefined;
    if (at !== undefined)
      return void editor.chain().setNodeSelection(at).updateAttributes('cite', attrs).setTextSelection(at + 1).focus().run(); // prettier-ignore
    putInline(editor, [
      ...(writing.inNotes ? [] : blankBefore(editor)),
      { type: 'cite', attrs: { id: v7(), ...attrs } },
    ]);
  }
  function keepValue(value: string) {
    const { editor } = writing;
    if (!editor || !field) return;
    const given = field;
    field = undefined;
    const chain = editor.chain().focus();
    if (given.what === 'formula' || given.what === 'formulaBlock') {
      if (given.at !== undefined) {
        if (value) chain.setNodeSelection(given.at).updateAttributes(given.what, { tex: value }).run();
        else drop(given.at);
      } else if (value) chain.insertContent({ type: given.what, attrs: { tex: value } }).run();
    } else if (given.what === 'caption') {
      editor.view.dispatch(editor.state.tr.setNodeAttribute(given.at, 'caption', value));
      editor.commands.focus();
    } else if (given.what === 'remark') {
      chain.setTextSelection({ from: given.from, to: given.to });
      if (value) chain.setMark('remark', { words: value });
      else chain.unsetMark('remark');
      chain.setTextSelection(given.to).run();
    } else if (given.what === 'link') {
      chain.extendMarkRange('link');
      const href = value && !/^(?:https?:|mailto:)/i.test(value) ? `https://${value}` : value;
      if (href) chain.setLink({ href }).run();
      else chain.unsetLink().run();
    }
  }
  function drop(at: number | undefined) {
    const { editor } = writing;
    field = undefined;
    if (!editor || at === undefined) return;
    editor.chain().setNodeSelection(at).deleteSelection().focus().run();
  }

  /** Puts what stands in the outline into the text. */
  async function put(given: OutlineItem[], at?: number) {
    const { editor } = writing;
    if (!editor || !edits) return;
    const passages = given.filter((i) => i.kind === 'passage').map((i) => i.ref);
    const answer = passages.length
      ? await attempt(() =>
          call<{ material: PassageMaterial[] }>('POST', '/api/drafts/material', { passages }),
        )
      : { material: [] };
    if (!answer) return;
    if (at !== undefined) editor.commands.setTextSelection(at);
    for (const item of given) {
      if (item.kind === 'passage') {
        const material = answer.material.find((m) => m.id === item.ref);
        if (!material) continue;
        const { quotes } = writing;
        const as = placed(material, { quotes, words: blockWords(look.style), newId: v7 });
        if ('blocks' in as) putBlocks(editor, as.blocks);
        else putInline(editor, [...blankBefore(editor), ...as.inline]);
      } else if (item.kind === 'source')
        putInline(editor, [
          ...blankBefore(editor),
          { type: 'cite', attrs: { id: v7(), works: [{ id: item.ref }], named: false } },
        ]);
      else putInline(editor, [...blankBefore(editor), { type: 'text', text: `${item.words ?? ''} ` }]);
    }
  }
  /** Begins with the sections of the outline as headings, and its sentences under them. */
  function begin(sentences: boolean) {
    const blocks = ordered.flatMap((section): Block[] => [
      {
        type: 'heading',
        attrs: { level: Math.min(section.depth + 1, 6), section: section.id },
        content: section.name ? [{ type: 'text', text: section.name }] : [],
      },
      ...(sentences ? items : [])
        .filter((i) => i.sectionId === section.id && i.kind === 'sentence' && i.words)
        .map((i): Block => ({ type: 'paragraph', content: [{ type: 'text', text: i.words! }] })),
    ]);
    if (writing.editor) putBlocks(writing.editor, blocks);
  }
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
  /** What can be pointed at: figures and tables first, then headings. */
  const targets = $derived.by(() => {
    if (field?.what !== 'point' || !writing.editor) return [];
    return writing.editor.state.doc.children.flatMap((node) => {
      const id = String(node.attrs.id);
      const name = writing.showing.name(id);
      return name ? [{ id, name: node.type.name === 'heading' ? name : `${name}. ${String(node.attrs.caption ?? '')}` }] : []; // prettier-ignore
    });
  });

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
            const chosen = chosenNode();
            return Boolean(chosen && edit(chosen.node, chosen.pos));
          },
          handleDoubleClickOn: (_view, _pos, node, pos) => edit(node, pos),
          handleDrop: (view, event) => {
            const given = event.dataTransfer?.getData(DRAGGED);
            if (!given) return false;
            event.preventDefault();
            const at = view.posAtCoords({ left: event.clientX, top: event.clientY })?.pos;
            void put([JSON.parse(given) as OutlineItem], at);
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

{#snippet small(label: string, value: string, hint: string, at: number | undefined, maths: boolean)}
  <SmallField
    {label}
    {value}
    {hint}
    top={field!.top}
    left={field!.left}
    above={field!.above}
    {...maths
      ? {
          shown: (tex: string) => {
            const dom = document.createElement('span');
            mathIn(dom, tex, false);
            return dom.classList.contains('unknown') ? dom.title.replace(/</g, '&lt;') : dom.innerHTML;
          },
        }
      : {}}
    ondrop={at === undefined ? undefined : () => drop(at)}
    onkeep={keepValue}
    onleave={close}
  />
{/snippet}

<div class="beside">
  <div class="page">
    {#if writing.editor}
      {#if edits}<Toolbar
          editor={writing.editor}
          beat={writing.beat}
          {acts}
          onlink={link}
          oncaption={caption}
        />{/if}
      {#if finding}
        <FindBar editor={writing.editor} beat={writing.beat} onleave={() => (finding = false)} />
      {/if}
    {/if}
    {#each writing.clashes as clash (clash.id)}
      {@const mine = now().find((p) => p.id === clash.id)}
      <div class="clash" role="alert">
        <p>
          <b
            >{clash.theirs
              ? 'This was changed somewhere else while you wrote.'
              : 'This was taken out somewhere else while you wrote.'}</b
          >
          Nothing was written over.
        </p>
        <p class="serif">
          <Differences
            was={clash.theirs ? textOfBlock(clash.theirs) : ''}
            is={mine ? textOfBlock(mine.content) : ''}
          />
        </p>
        <p class="acts">
          <Button small look="main" onclick={() => writing.decide(clash.id, 'mine')}>Keep mine</Button>
          <Button small onclick={() => writing.decide(clash.id, 'theirs')}
            >{clash.theirs ? 'Take theirs' : 'Take it out'}</Button
          >
          {#if clash.theirs}<Button small onclick={() => writing.decide(clash.id, 'both')}>Keep both</Button
            >{/if}
          <Button small look="quiet" onclick={() => openPart(clash.id)}>Show it</Button>
        </p>
      </div>
    {/each}
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
      {#if field?.what === 'cite'}
        <CiteField
          projectId={draft.projectId}
          given={field.given}
          labels={writing.labels}
          top={field.top}
          left={field.left}
          above={field.above}
          onkeep={keepCite}
          onleave={close}
        />
      {:else if field?.what === 'footnote'}
        {@const at = field.at}
        <FootnoteField
          content={field.content}
          showing={writing.showing}
          projectId={draft.projectId}
          labels={writing.labels}
          top={field.top}
          left={field.left}
          above={field.above}
          ondrop={() => drop(at)}
          onwrite={(content) =>
            writing.editor?.view.dispatch(writing.editor.state.tr.setNodeAttribute(at, 'content', content))}
          onleave={() => {
            const behind = at + 1;
            field = undefined;
            writing.editor?.chain().setTextSelection(behind).focus().run();
          }}
        />
      {:else if field?.what === 'formula' || field?.what === 'formulaBlock'}
        {@render small('Formula', field.value, 'TeX, as h = \\frac{Q}{v b}', field.at, true)}
      {:else if field?.what === 'caption'}
        {@render small('Caption', field.value, 'What it shows', undefined, false)}
      {:else if field?.what === 'remark'}
        {@render small('A word to yourself', field.value, 'Never printed', undefined, false)}
      {:else if field?.what === 'link'}
        {@render small('Link', field.value, 'https://', undefined, false)}
      {:else if field?.what === 'point'}
        <div
          class="point"
          role="dialog"
          aria-label="Point at"
          tabindex="-1"
          style="top: {field.top}px; left: {field.left}px; {field.above ? 'translate: 0 -100%' : ''}"
          onkeydown={(e) => e.key === 'Escape' && close()}
        >
          {#if targets.length}
            <Select
              autofocus
              aria-label="Figure, table or section"
              onchange={(e) => {
                const to = e.currentTarget.value;
                field = undefined;
                if (to && writing.editor) putInline(writing.editor, [{ type: 'crossref', attrs: { to } }]);
              }}
            >
              <option value="">Point at…</option>
              {#each targets as { id, name } (id)}<option value={id}>{name}</option>{/each}
            </Select>
          {:else}
            <p class="small-label">There is no figure, table or heading to point at yet.</p>
          {/if}
          <Button small keys="Esc" onclick={close}>Leave</Button>
        </div>
      {/if}
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
  .clash {
    display: grid;
    gap: 5px;
    padding: 9px 20px;
    border-bottom: 1px solid var(--rule);
    background: var(--red-soft);
    font-size: 13px;
  }
  .clash .acts {
    display: flex;
    gap: 6px;
  }
  .first {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
    margin-top: 20px;
    color: var(--ink-2);
  }
  .point {
    position: absolute;
    z-index: 15;
    display: grid;
    gap: 7px;
    width: min(380px, 92%);
    padding: 9px;
    border: 1px solid var(--edge);
    border-radius: 7px;
    background: var(--page);
    box-shadow: 0 8px 24px rgb(0 0 0 / 14%);
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
