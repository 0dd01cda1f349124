import { Node, type AnyExtension } from '@tiptap/core';
import { Placeholder } from '@tiptap/extensions';
import StarterKit from '@tiptap/starter-kit';
import type { EditorState } from '@tiptap/pm/state';
import type { Named } from '$lib/core/notes';

/** A source or a note that is named in the text: one thing, which the caret goes over. */
const NamedNode = Node.create({
  name: 'named',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({
    kind: { default: 'source' },
    id: { default: '' },
    label: { default: '' },
  }),
  // What is pasted from a page names nothing by itself.
  parseHTML: () => [],
  renderHTML: ({ node }) => [
    'span',
    { class: `named ${node.attrs.kind as string}` },
    String(node.attrs.label || 'another note'),
  ],
  renderText: ({ node }) => String(node.attrs.label),
});

/** What is typed behind an @ before the caret, for what is to be named; nothing where none is typed. */
export interface Naming {
  words: string;
  from: number;
  to: number;
}

/** Longest name one types before it is taken for text that happens to have an @. */
const LONGEST = 60;

/** The @ that is being typed at the caret: at the beginning of a word, up to its line’s end. */
export function namingAt({ selection, doc }: EditorState): Naming | undefined {
  const { $from, empty } = selection;
  if (!empty || !$from.parent.isTextblock) return undefined;
  const before = doc.textBetween(Math.max($from.start(), $from.pos - LONGEST - 1), $from.pos, '\n', '\n');
  const typed = /(?:^|[\s([{“"'])@([^@\n]*)$/.exec(before)?.[1];
  if (typed === undefined || / {2}/.test(typed)) return undefined;
  return { words: typed, from: $from.pos - typed.length - 1, to: $from.pos };
}

/** What a note can hold: some looks, lists, quotations, and names. */
export const extensionsForNotes = (placeholder: string): AnyExtension[] => [
  StarterKit.configure({
    heading: false,
    code: false,
    codeBlock: false,
    horizontalRule: false,
    link: { openOnClick: false, defaultProtocol: 'https', protocols: ['http', 'https', 'mailto'] },
  }),
  Placeholder.configure({ placeholder }),
  NamedNode,
];

/** What stands in the text in place of an @ and what was typed behind it. */
export const asNamed = ({ kind, id, label }: Named) => [
  { type: 'named', attrs: { kind, id, label } },
  { type: 'text', text: ' ' },
];
