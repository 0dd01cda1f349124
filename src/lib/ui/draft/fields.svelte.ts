import { untrack } from 'svelte';
import type { Editor } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import { v7 } from 'uuid';
import { textOfInlines, type CitedWork, type Inline } from '$lib/core/drafting';
import type { FieldPlace } from './FieldBox.svelte';
import { captionOf } from './line';
import { blankBefore, putInline } from './text';
import type { Writing } from './writing.svelte';

/** A citation as it is typed. */
export interface Cited {
  works: CitedWork[];
  named: boolean;
}

/** What is typed in a small field beside the text. */
export type Field =
  | { what: 'cite'; at?: number; given?: Cited }
  | { what: 'footnote'; at: number; content: Inline[] }
  /** `alt`: what a picture shows, where it is one. */
  | { what: 'caption'; at: number; content: Inline[]; alt?: string }
  | { what: 'formula' | 'formulaBlock'; at?: number; value: string }
  | { what: 'remark'; value: string; from: number; to: number }
  | { what: 'link'; value: string }
  | { what: 'point' };

/** The small fields of a text: which is open, and what is done with what was typed there. `sheet` is what they stand in. */
export function fieldsOf(writing: Writing, edits: boolean, sheet: () => HTMLElement | undefined) {
  let open = $state.raw<Field & FieldPlace>();

  let followed: Editor | undefined;
  /** What a field is of may be moved by what others write above it: the field goes on being of that. */
  function follow(editor: Editor): void {
    if (followed === editor) return;
    followed = editor;
    editor.on('transaction', ({ transaction: { docChanged, mapping } }) => {
      const field = untrack(() => open);
      if (!field || !docChanged) return;
      if ('at' in field && field.at !== undefined) {
        const at = mapping.map(field.at, 1);
        if (at !== field.at) open = { ...field, at };
      } else if (field.what === 'remark')
        open = { ...field, from: mapping.map(field.from, 1), to: mapping.map(field.to, -1) };
    });
  }
  /** Opens a small field below where the caret, or a place in the text, is. */
  function openField(what: Field, at?: number): void {
    const { editor } = writing;
    const around = sheet();
    if (!editor || !around) return;
    follow(editor);
    const pos = at ?? editor.state.selection.from;
    // It is the caption that the field stands beside, not the picture or the table.
    const part = at === undefined ? undefined : (editor.state.doc.nodeAt(at)?.attrs.id as string | undefined);
    const caption = part && around.querySelector(`[data-part="${part}"] > p, [data-caption-of="${part}"]`);
    const spot =
      what.what === 'caption' && caption
        ? caption.getBoundingClientRect()
        : editor.view.coordsAtPos(Math.min(pos, editor.state.doc.content.size));
    const box = around.getBoundingClientRect();
    // Where there is more room above, it opens upwards.
    const above = spot.bottom - box.top > box.height * 0.55;
    const top = (above ? spot.top - 8 : spot.bottom + 8) - box.top + around.scrollTop;
    const left = Math.max(8, Math.min(spot.left - box.left - 40, box.width - 480));
    open = { ...what, top, left, above };
  }
  const openCaption = (node: PmNode, at: number) => {
    const content = captionOf(node);
    const alt = node.type.name === 'figure' ? { alt: String(node.attrs.alt ?? '') } : {};
    openField({ what: 'caption', at, content, ...alt }, at);
  };
  const chosen = (): { node: PmNode; pos: number } | undefined => {
    const selection = writing.editor?.state.selection;
    return selection && 'node' in selection
      ? { node: selection.node as PmNode, pos: selection.from }
      : undefined;
  };
  /** Opens what stands somewhere for changing; false where it is nothing that can be. */
  function edit(node: PmNode, pos: number): boolean {
    if (!edits) return false;
    const { attrs } = node;
    switch (node.type.name) {
      case 'cite':
        openField({ what: 'cite', at: pos, given: attrs as Cited }, pos);
        return true;
      case 'footnote':
        openField({ what: 'footnote', at: pos, content: attrs.content as Inline[] }, pos);
        return true;
      case 'formula':
      case 'formulaBlock':
        openField({ what: node.type.name, at: pos, value: String(attrs.tex) }, pos);
        return true;
      case 'figure':
      case 'table':
        openCaption(node, pos);
        return true;
      default:
        return false;
    }
  }
  /** Goes back to the text, behind what was chosen: who writes on does not write over it. */
  function close(): void {
    open = undefined;
    const { editor } = writing;
    if (!editor) return;
    if ('node' in editor.state.selection) editor.commands.setTextSelection(editor.state.selection.to);
    editor.commands.focus();
  }
  function drop(at: number | undefined): void {
    const { editor } = writing;
    open = undefined;
    if (!editor || at === undefined) return;
    editor.chain().setNodeSelection(at).deleteSelection().focus().run();
  }
  /** Sets what a thing in the text says, as it is typed. */
  function write(at: number, attribute: 'content' | 'caption' | 'alt', value: unknown): void {
    const { editor } = writing;
    // It may have been taken out somewhere else meanwhile.
    if (!editor || !(attribute in (editor.state.doc.nodeAt(at)?.attrs ?? {}))) return;
    editor.view.dispatch(editor.state.tr.setNodeAttribute(at, attribute, value));
  }

  return {
    get open() {
      return open;
    },
    edit,
    close,
    drop,
    write,
    /** Opens what is chosen in the text, if it can be changed. */
    editChosen(): boolean {
      const there = chosen();
      return Boolean(there && edit(there.node, there.pos));
    },
    cite(): void {
      const there = chosen();
      if (there?.node.type.name === 'cite') edit(there.node, there.pos);
      else openField({ what: 'cite' });
    },
    footnote(): void {
      const { editor } = writing;
      if (!editor) return;
      const attrs = { id: v7(), content: [] };
      editor.chain().focus().insertContent({ type: 'footnote', attrs }).run();
      const at = editor.state.selection.from - 1;
      openField({ what: 'footnote', at, content: [] }, at);
    },
    formula(): void {
      const paragraph = writing.editor?.state.selection.$from.parent;
      openField({ what: paragraph?.content.size === 0 ? 'formulaBlock' : 'formula', value: '' });
    },
    remark(): void {
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
    link: () => openField({ what: 'link', value: String(writing.editor?.getAttributes('link').href ?? '') }),
    /** The caption of the part one is in. */
    caption(): void {
      const { editor } = writing;
      const at = editor && editor.state.selection.$from.before(1);
      const node = at === undefined ? undefined : editor?.state.doc.nodeAt(at);
      if (node && at !== undefined) edit(node, at);
    },
    /** What can be pointed at: figures, tables and headings, as they are called. */
    get targets(): { id: string; name: string }[] {
      if (open?.what !== 'point' || !writing.editor) return [];
      return writing.editor.state.doc.children.flatMap((node) => {
        const id = String(node.attrs.id);
        const name = writing.showing.name(id);
        if (!name) return [];
        if (node.type.name === 'heading') return [{ id, name }];
        return [{ id, name: `${name}. ${textOfInlines(captionOf(node))}` }];
      });
    },
    pointAt(to: string): void {
      open = undefined;
      if (to && writing.editor) putInline(writing.editor, [{ type: 'crossref', attrs: { to } }]);
    },
    keepCite(attrs: Cited): void {
      const { editor } = writing;
      if (!editor || open?.what !== 'cite') return;
      const { at } = open;
      open = undefined;
      if (at !== undefined)
        return void editor.chain().setNodeSelection(at).updateAttributes('cite', attrs).setTextSelection(at + 1).focus().run(); // prettier-ignore
      putInline(editor, [
        ...(writing.inNotes ? [] : blankBefore(editor)),
        { type: 'cite', attrs: { id: v7(), ...attrs } },
      ]);
    },
    keepValue(value: string): void {
      const { editor } = writing;
      if (!editor || !open) return;
      const given = open;
      open = undefined;
      const chain = editor.chain().focus();
      if (given.what === 'formula' || given.what === 'formulaBlock') {
        if (given.at !== undefined) {
          if (value) chain.setNodeSelection(given.at).updateAttributes(given.what, { tex: value }).run();
          else drop(given.at);
        } else if (value) chain.insertContent({ type: given.what, attrs: { tex: value } }).run();
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
    },
    /** Goes on behind what a line was written of. */
    leaveLine(at: number): void {
      open = undefined;
      const { editor } = writing;
      const node = editor?.state.doc.nodeAt(at);
      if (!editor || !node) return;
      // Of a table one goes on in its first cell.
      const to = node.isAtom ? at + node.nodeSize : at + 3;
      editor.chain().setTextSelection(Math.min(to, editor.state.doc.content.size)).focus().run();
    },
  };
}

export type Fields = ReturnType<typeof fieldsOf>;
