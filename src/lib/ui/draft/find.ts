import { Extension, type Editor } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';

/** Where what is looked for stands, in the editor’s own count. */
export interface Hit {
  from: number;
  to: number;
}

interface Finding {
  hits: Hit[];
  at: number;
}
const KEY = new PluginKey<Finding>('find');

/** Marks what is looked for in the text, and the one one is at. */
export const Find = Extension.create({
  name: 'find',
  addProseMirrorPlugins: () => [
    new Plugin<Finding>({
      key: KEY,
      state: {
        init: () => ({ hits: [], at: 0 }),
        apply: (tr, before) => {
          const set = tr.getMeta(KEY) as Finding | undefined;
          if (set) return set;
          if (!tr.docChanged || !before.hits.length) return before;
          const hits = before.hits.map(({ from, to }) => ({
            from: tr.mapping.map(from, 1),
            to: tr.mapping.map(to, -1),
          }));
          return { ...before, hits: hits.filter(({ from, to }) => to > from) };
        },
      },
      props: {
        decorations: (state) => {
          const { hits, at } = KEY.getState(state)!;
          return DecorationSet.create(
            state.doc,
            hits.map(({ from, to }, i) =>
              Decoration.inline(from, to, { class: i === at ? 'found current' : 'found' }),
            ),
          );
        },
      },
    }),
  ],
});

/** Where words stand in a text, within its lines; capitals count as small letters unless the words have one. */
export function hitsIn(doc: PmNode, words: string): Hit[] {
  if (!words) return [];
  const exact = /\p{Lu}/u.test(words);
  const fold = (text: string) => (exact ? text : text.toLowerCase());
  // What folds to another length would be found elsewhere than it stands.
  const same = (text: string) => (fold(text).length === text.length ? fold(text) : text);
  const wanted = same(words);
  const hits: Hit[] = [];
  doc.descendants((node, pos) => {
    if (!node.isTextblock) return true;
    // What stands in the line and is no text counts as one sign nobody types.
    const text = same(node.textBetween(0, node.content.size, undefined, '\ufffc'));
    for (let at = text.indexOf(wanted); at !== -1; at = text.indexOf(wanted, at + wanted.length))
      hits.push({ from: pos + 1 + at, to: pos + 1 + at + wanted.length });
    return false;
  });
  return hits;
}

/** Marks hits, and shows the one at an index. */
export function showHits(editor: Editor, hits: Hit[], at: number, go = true): void {
  editor.view.dispatch(editor.state.tr.setMeta(KEY, { hits, at } satisfies Finding));
  const hit = hits[at];
  if (!hit || !go) return;
  const dom = editor.view.domAtPos(hit.from).node;
  (dom instanceof HTMLElement ? dom : dom.parentElement)?.scrollIntoView({ block: 'center' });
}

/** What is marked now. */
export const hitsNow = ({ state }: Editor): Finding => KEY.getState(state)!;

/** Puts other words in place of some hits, as one step that is undone as one. */
export function replaceHits(editor: Editor, hits: readonly Hit[], words: string): void {
  const { state } = editor;
  const tr = state.tr;
  for (const { from, to } of [...hits].reverse()) {
    if (words) tr.insertText(words, from, to);
    else tr.delete(from, to);
  }
  editor.view.dispatch(tr);
}
