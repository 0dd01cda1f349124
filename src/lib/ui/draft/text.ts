import type { Editor } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import { TextSelection, type Transaction } from '@tiptap/pm/state';
import { readPart, type Block, type Inline, type PartReading } from '$lib/core/drafting';
import type { Target, Written } from './keeping';
import { partNode, partsNode } from './schema';

/** What a part says, made once for what stands there. */
const contents = new WeakMap<PmNode, { json: string; read: PartReading; met: string }>();

function contentOf(node: PmNode): { json: string; read: PartReading; met: string } {
  const known = contents.get(node);
  if (known) return known;
  const content = node.toJSON() as Block;
  const read = readPart({ id: String(node.attrs.id), content });
  const made = { json: JSON.stringify(content), read, met: JSON.stringify(read.met) };
  contents.set(node, made);
  return made;
}

/** The parts of the text that are there to be kept: an empty text has one that was never touched, without an id. */
const partsIn = (doc: PmNode): PmNode[] => doc.children.filter((node) => node.attrs.id);

/** The text as it is kept. */
export const written = ({ state }: Editor): Written[] =>
  partsIn(state.doc).map((node) => ({ id: String(node.attrs.id), json: contentOf(node).json }));

/** What is to be known of each part; `met` tells whether citations and footnotes are others. */
export const readings = ({ state }: Editor): { read: PartReading; met: string }[] =>
  partsIn(state.doc).map(contentOf);

/** Where the part at an index begins. */
function startOf(doc: PmNode, index: number): number {
  let at = 0;
  for (let i = 0; i < index; i++) at += doc.child(i).nodeSize;
  return at;
}

/** Makes the text another, in as few steps as it takes, so that the caret and what can be undone stay. */
export function applyTarget(editor: Editor, target: Target): void {
  const { state } = editor;
  const { schema } = state;
  const tr = state.tr.setMeta('addToHistory', false).setMeta('remote', true);
  if (partsIn(state.doc).length === 0) {
    const parts = target.flatMap(({ id, content }) => (content ? [{ id, content }] : []));
    if (parts.length) tr.replaceWith(0, state.doc.content.size, partsNode(schema, parts));
  } else {
    const wanted = new Set(target.map(({ id }) => id));
    for (let i = state.doc.childCount - 1; i >= 0; i--) {
      const node = state.doc.child(i);
      if (wanted.has(String(node.attrs.id))) continue;
      if (tr.doc.childCount === 1)
        tr.replaceWith(0, tr.doc.content.size, schema.nodes.paragraph!.create({ id: null }));
      else tr.delete(startOf(tr.doc, i), startOf(tr.doc, i) + node.nodeSize);
    }
    target.forEach(({ id, content }, i) => {
      const at = startOf(tr.doc, Math.min(i, tr.doc.childCount));
      const here = tr.doc.maybeChild(i);
      if (here?.attrs.id === id) {
        if (content) tr.replaceWith(at, at + here.nodeSize, partNode(schema, id, content));
        return;
      }
      const from = tr.doc.children.findIndex((node) => node.attrs.id === id);
      const node = content ? partNode(schema, id, content) : tr.doc.maybeChild(from);
      if (!node) return;
      if (from !== -1) {
        const begin = startOf(tr.doc, from);
        tr.delete(begin, begin + tr.doc.child(from).nodeSize);
      }
      tr.insert(at, node);
    });
  }
  if (tr.docChanged) editor.view.dispatch(tr);
}

/** The id of the heading the caret stands under, or in; nothing before the first. */
export function headingAt({ state }: Editor): string | undefined {
  const index = state.selection.$from.index(0);
  for (let i = Math.min(index, state.doc.childCount - 1); i >= 0; i--) {
    const node = state.doc.child(i);
    if (node.type.name === 'heading') return String(node.attrs.id);
  }
  return undefined;
}

/** Where a node stands that fits, the first of them. */
export function findNode({ state }: Editor, fits: (node: PmNode) => boolean): { node: PmNode; pos: number } | undefined {
  let found: { node: PmNode; pos: number } | undefined;
  state.doc.descendants((node, pos) => {
    if (!found && fits(node)) found = { node, pos };
    return !found;
  });
  return found;
} // prettier-ignore

/** Goes to a part, or to something in it, and shows it. */
export function goTo(editor: Editor, pos: number, select = false): void {
  const chain = editor.chain().focus(undefined, { scrollIntoView: false });
  (select ? chain.setNodeSelection(pos) : chain.setTextSelection(pos)).run();
  const dom = editor.view.nodeDOM(pos);
  (dom instanceof HTMLElement ? dom : dom?.parentElement)?.scrollIntoView({ block: 'center' });
}

/** Where a part begins; nothing when it is not there. */
export function posOfPart({ state }: Editor, id: string): number | undefined {
  const index = state.doc.children.findIndex((node) => node.attrs.id === id);
  return index === -1 ? undefined : startOf(state.doc, index);
}

/** Puts blocks behind the part the caret is in, in place of it where it is empty. */
export function putBlocks(editor: Editor, blocks: Block[]): void {
  const { state, view } = editor;
  const { schema } = state;
  const nodes = blocks.map((block) => schema.nodeFromJSON(block));
  // One goes on writing below what is no text.
  const last = state.selection.$from.index(0) >= state.doc.childCount - 1;
  if (last && !nodes.at(-1)?.isTextblock) nodes.push(schema.nodes.paragraph!.create());
  const index = Math.min(state.selection.$from.index(0), state.doc.childCount - 1);
  const here = state.doc.child(index);
  const at = startOf(state.doc, index);
  const empty = here.type.name === 'paragraph' && here.content.size === 0;
  const tr: Transaction = state.tr;
  const from = empty ? at : at + here.nodeSize;
  tr.replaceWith(from, at + here.nodeSize, nodes);
  const end = from + nodes.reduce((sum, node) => sum + node.nodeSize, 0);
  tr.setSelection(TextSelection.near(tr.doc.resolve(Math.min(end, tr.doc.content.size)), -1));
  view.dispatch(tr.scrollIntoView());
  editor.commands.focus();
}

/** Puts a table where the caret is, and the caret in it. */
export function putTable(editor: Editor): void {
  editor.chain().focus().insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run();
  const { state, view } = editor;
  if (state.doc.lastChild?.type.name === 'table')
    view.dispatch(state.tr.insert(state.doc.content.size, state.schema.nodes.paragraph!.create()));
}

/** Puts text and what stands in it where the caret is. */
export const putInline = (editor: Editor, content: Inline[]): void =>
  void editor.chain().focus().insertContent(content).run();

/** A blank, where a word stands right before the caret. */
export function blankBefore({ state }: Editor): Inline[] {
  const { parent, parentOffset } = state.selection.$from;
  const before = parent.textBetween(0, parentOffset, undefined, 'x');
  return before && !/[\s([“‘„«]$/.test(before) ? [{ type: 'text', text: ' ' }] : [];
}
