import { Extension, Mark, mergeAttributes, Node, type AnyExtension } from '@tiptap/core';
import { TableKit } from '@tiptap/extension-table';
import { Placeholder } from '@tiptap/extensions';
import StarterKit from '@tiptap/starter-kit';
import { Fragment, type Node as PmNode } from '@tiptap/pm/model';
import { Plugin, PluginKey, Selection } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import { v7 } from 'uuid';
import { textOfInlines, type Inline } from '$lib/core/drafting';
import { escapeHtml } from '$lib/core/text';
import { Find } from './find';
import { captionOf, lineHtml, watchedIn } from './line';
import { mathIn } from './maths';
import type { Showing } from './showing';

/** What stands at the top of a draft: its parts, each with an id. */
const PARTS = [
  'paragraph',
  'heading',
  'blockquote',
  'bulletList',
  'orderedList',
  'table',
  'codeBlock',
  'horizontalRule',
  'figure',
  'formulaBlock',
];

/** An attribute that is kept with the text and not read from what is pasted. */
const kept = (value: unknown = null) => ({ default: value, rendered: false, parseHTML: () => value });

/** Gives every part an id, and every citation, footnote and figure its own: what is pasted twice is two. */
const Ids = Extension.create({
  name: 'ids',
  addGlobalAttributes() {
    return [
      {
        types: PARTS,
        attributes: {
          id: {
            default: null,
            parseHTML: () => null,
            renderHTML: ({ id }) => (id ? { 'data-part': id as string } : {}),
          },
        },
      },
    ];
  },
  addProseMirrorPlugins() {
    return [
      new Plugin({
        key: new PluginKey('ids'),
        appendTransaction: (transactions, _before, state) => {
          if (!transactions.some((tr) => tr.docChanged)) return null;
          const tr = state.tr;
          const seen = new Set<string>();
          let at = 0;
          state.doc.forEach((part) => {
            const id = part.attrs.id as string | null;
            if (!id || seen.has(id)) tr.setNodeAttribute(at, 'id', v7());
            else seen.add(id);
            if (!plain(part))
              part.descendants((node, within) => {
                // What stands in a part is no part itself.
                if (node.attrs.id && PARTS.includes(node.type.name))
                  tr.setNodeAttribute(at + 1 + within, 'id', null);
                again(node, at + 1 + within);
              });
            again(part, at);
            at += part.nodeSize;
          });
          function again(node: PmNode, pos: number): void {
            const { name: type } = node.type;
            if (type === 'figure' || type === 'table') againIn(node, pos);
            const name = type === 'figure' ? 'cite' : 'id';
            if (!['cite', 'footnote', 'figure'].includes(type)) return;
            const id = node.attrs[name] as string | null;
            if (id && !seen.has(id)) return void seen.add(id);
            tr.setNodeAttribute(pos, name, v7());
            // A footnote that is there twice has citations of its own each time.
            if (node.type.name === 'footnote')
              tr.setNodeAttribute(pos, 'content', (node.attrs.content as Inline[]).map(anew));
          }
          /** Citations of a caption that is there twice are others each time. */
          function againIn(node: PmNode, pos: number): void {
            const ids = captionOf(node).flatMap((c) => (c.type === 'cite' ? [c.attrs.id] : []));
            if (ids.some((id) => seen.has(id)))
              tr.setNodeAttribute(pos, 'caption', captionOf(node).map(anew));
            else for (const id of ids) seen.add(id);
          }
          return tr.docChanged ? tr.setMeta('addToHistory', false) : null;
        },
      }),
    ];
  },
});

/** Whether a part has nothing in it that has an id: most have not, and are looked at once. */
const known = new WeakMap<PmNode, boolean>();
function plain(part: PmNode): boolean {
  let is = known.get(part);
  if (is === undefined) {
    is = true;
    part.descendants((node) => {
      if (node.attrs.id || node.attrs.caption || ['cite', 'footnote'].includes(node.type.name)) is = false;
      return is!;
    });
    known.set(part, is);
  }
  return is;
}

const anew = (inline: Inline): Inline =>
  inline.type === 'cite' ? { ...inline, attrs: { ...inline.attrs, id: v7() } } : inline;

const json = (value: string | null): unknown => {
  try {
    return JSON.parse(value ?? 'null') as unknown;
  } catch {
    return null;
  }
};

/** What a figure or a table is called, and its caption as it reads now. */
const captionHtml = (node: PmNode, showing: Showing, unnamed: string): string =>
  `<b>${escapeHtml(showing.name(String(node.attrs.id)) ?? unnamed)}.</b> ${lineHtml(captionOf(node), showing)}`;

function captionDom(node: PmNode, showing: Showing): { dom: HTMLElement; stop: () => void } {
  const dom = document.createElement('div');
  dom.className = 'over-table';
  dom.contentEditable = 'false';
  dom.dataset.captionOf = String(node.attrs.id);
  dom.title = 'Caption: press it to write it';
  const draw = () => (dom.innerHTML = captionHtml(node, showing, 'Table'));
  const stop = showing.watch([String(node.attrs.id), ...watchedIn(captionOf(node))], draw);
  draw();
  return { dom, stop };
}

/** Captions of tables, over each; a press on one opens it (see `data-caption-of`). */
function captions(showing: Showing): Extension {
  const stops = new WeakMap<globalThis.Node, () => void>();
  const over = (doc: PmNode): DecorationSet => {
    const found: Decoration[] = [];
    doc.forEach((node, pos) => {
      if (node.type.name !== 'table') return;
      const draw = () => {
        const { dom, stop } = captionDom(node, showing);
        stops.set(dom, stop);
        return dom;
      };
      const key = `caption ${String(node.attrs.id)} ${JSON.stringify(node.attrs.caption)}`;
      found.push(Decoration.widget(pos, draw, { side: -1, key, ignoreSelection: true, destroy: (dom) => stops.get(dom)?.() })); // prettier-ignore
    });
    return DecorationSet.create(doc, found);
  };
  return Extension.create({
    name: 'captions',
    addProseMirrorPlugins: () => [
      new Plugin<DecorationSet>({
        key: new PluginKey('captions'),
        state: {
          init: (_config, { doc }) => over(doc),
          apply: (tr, before) => (tr.docChanged ? over(tr.doc) : before),
        },
        props: {
          decorations(state) {
            return this.getState(state);
          },
        },
      }),
    ],
  });
}

/** A node that is one thing in the text and shows what is printed for it. */
function shownAs(
  name: string,
  element: 'span' | 'div',
  attributes: Record<string, { default: unknown }>,
  more: {
    inline: boolean;
    draw: (node: PmNode, dom: HTMLElement, showing: Showing) => void;
    /** What it is watched by: when one of them prints otherwise, it is drawn again. */
    of: (node: PmNode) => string[];
    text: (node: PmNode, showing: Showing) => string;
  },
  showing: Showing,
): Node {
  return Node.create({
    name,
    group: more.inline ? 'inline' : 'block',
    inline: more.inline,
    atom: true,
    selectable: true,
    draggable: !more.inline,
    addAttributes: () => ({
      ...attributes,
    }),
    parseHTML: () => [
      {
        tag: `${element}[data-${name}]`,
        getAttrs: (dom) => {
          const given = json(dom.getAttribute(`data-${name}`));
          return given && typeof given === 'object' ? (given as Record<string, unknown>) : false;
        },
      },
    ],
    renderHTML: ({ node, HTMLAttributes }) => [
      element,
      mergeAttributes(
        { 'data-part': (HTMLAttributes['data-part'] as string | undefined) ?? null },
        { [`data-${name}`]: JSON.stringify(node.attrs) },
      ),
      ...(element === 'span' ? [more.text(node, showing)] : []),
    ],
    renderText: ({ node }) => more.text(node, showing),
    addNodeView() {
      return ({ node: first }) => {
        let node = first;
        const dom = document.createElement(element);
        dom.className = `in-${name}`;
        dom.contentEditable = 'false';
        const draw = () => {
          if (node.attrs.id) dom.dataset.part = node.attrs.id as string;
          more.draw(node, dom, showing);
        };
        let stop = showing.watch(more.of(node), draw);
        draw();
        return {
          dom,
          update: (next) => {
            if (next.type !== node.type) return false;
            if (String(more.of(next)) !== String(more.of(node))) {
              stop();
              stop = showing.watch(more.of(next), draw);
            }
            node = next;
            draw();
            return true;
          },
          ignoreMutation: () => true,
          destroy: () => stop(),
        };
      };
    },
  });
}

/**
 * The caret is where one put it, when the next key comes. Left to the browser it moves first and the editor hears of
 * it with the next frame, late where the machine is busy: so it is asked to look before every key, and the keys for
 * either end of the text put the caret there themselves, since what is drawn in between would take it back.
 */
const Caret = Extension.create({
  name: 'caret',
  addKeyboardShortcuts() {
    const to = (end: 'atStart' | 'atEnd') => () => {
      const { state, view } = this.editor;
      view.dispatch(state.tr.setSelection(Selection[end](state.doc)).scrollIntoView());
      return true;
    };
    return { 'Mod-Home': to('atStart'), 'Mod-End': to('atEnd') };
  },
  addProseMirrorPlugins: () => [
    new Plugin({
      key: new PluginKey('caret'),
      props: {
        handleDOMEvents: {
          keydown: (view, event) => {
            if (!view.composing && !event.isComposing)
              view.dom.ownerDocument.dispatchEvent(new Event('selectionchange'));
            return false;
          },
        },
      },
    }),
  ],
});

/** All that the editor of drafts knows. */
export function extensionsFor(showing: Showing, placeholder: string): AnyExtension[] {
  return [
    StarterKit.configure({
      heading: { levels: [1, 2, 3, 4, 5, 6] },
      link: { openOnClick: false, protocols: ['http', 'https', 'mailto'], autolink: true },
      trailingNode: false,
      undoRedo: { depth: 500 },
    }),
    TableKit.configure({ table: { resizable: false } }),
    Placeholder.configure({ placeholder, showOnlyWhenEditable: true }),
    Ids,
    Caret,
    captions(showing),
    Find,
    ...marksAndAttributes(),
    ...nodesOf(showing),
  ];
}

/** What a footnote is written in: a line of text with citations and formulas. */
export const extensionsForNote = (showing: Showing): AnyExtension[] => [
  StarterKit.configure({
    heading: false,
    blockquote: false,
    bulletList: false,
    orderedList: false,
    listItem: false,
    listKeymap: false,
    codeBlock: false,
    horizontalRule: false,
    trailingNode: false,
    link: { openOnClick: false, protocols: ['http', 'https', 'mailto'] },
  }),
  Caret,
  ...marksAndAttributes().filter((e) => e.name !== 'more'),
  ...nodesOf(showing).filter((e) => ['cite', 'formula', 'crossref'].includes(e.name)),
];

const marksAndAttributes = (): AnyExtension[] => [
  Extension.create({
    name: 'more',
    addGlobalAttributes: () => [
      { types: ['heading'], attributes: { goal: kept(), section: kept() } },
      {
        types: ['blockquote'],
        attributes: {
          passage: {
            default: null,
            parseHTML: (dom) => dom.getAttribute('data-passage'),
            renderHTML: ({ passage }) => (passage ? { 'data-passage': passage as string } : {}),
          },
        },
      },
      {
        types: ['table'],
        attributes: {
          caption: {
            default: null,
            parseHTML: (dom) => json(dom.getAttribute('data-caption')) ?? dom.querySelector('caption')?.textContent ?? null,
            renderHTML: ({ caption }) => (caption ? { 'data-caption': JSON.stringify(caption) } : {}),
          },
        },
      },
    ],
  }),
  Mark.create({
    name: 'passage',
    inclusive: false,
    addAttributes: () => ({
      id: { default: '', parseHTML: (dom: HTMLElement) => dom.getAttribute('data-from'), renderHTML: ({ id }) => ({ 'data-from': id as string }) },
      as: { default: 'quotation', parseHTML: (dom: HTMLElement) => dom.getAttribute('data-as') ?? 'quotation', renderHTML: ({ as }) => ({ 'data-as': as as string }) },
    }),
    parseHTML: () => [{ tag: 'span[data-from]' }],
    renderHTML: ({ HTMLAttributes }) => ['span', HTMLAttributes, 0],
  }),
  Mark.create({
    name: 'remark',
    inclusive: false,
    excludes: '',
    addAttributes: () => ({
      words: { default: '', parseHTML: (dom: HTMLElement) => dom.getAttribute('data-remark'), renderHTML: ({ words }) => ({ 'data-remark': words as string, title: words as string }) },
    }),
    parseHTML: () => [{ tag: 'span[data-remark]' }],
    renderHTML: ({ HTMLAttributes }) => ['span', HTMLAttributes, 0],
  }),
]; // prettier-ignore

const nodesOf = (showing: Showing): AnyExtension[] => [
  shownAs(
    'cite',
    'span',
    { id: { default: null }, works: { default: [] }, named: { default: false } },
    {
      inline: true,
      of: (node) => [String(node.attrs.id)],
      text: (node, s) => s.citationText(String(node.attrs.id)),
      draw: (node, dom, s) => {
        const { html, title, unknown } = s.citation(String(node.attrs.id), node.attrs.works);
        dom.innerHTML = html;
        dom.title = title;
        dom.classList.toggle('unknown', unknown);
      },
    },
    showing,
  ),
  shownAs(
    'footnote',
    'span',
    { id: { default: null }, content: { default: [] } },
    {
      inline: true,
      of: (node) => [String(node.attrs.id)],
      text: () => '',
      draw: (node, dom, s) => {
        dom.innerHTML = `<sup>${s.note(String(node.attrs.id)) ?? '*'}</sup>`;
        dom.title = 'Footnote: press Enter to write it';
      },
    },
    showing,
  ),
  shownAs(
    'formula',
    'span',
    { tex: { default: '' } },
    {
      inline: true,
      of: () => [],
      text: (node) => `$${String(node.attrs.tex)}$`,
      draw: (node, dom) => mathIn(dom, String(node.attrs.tex), false),
    },
    showing,
  ),
  shownAs(
    'formulaBlock',
    'div',
    { tex: { default: '' } },
    {
      inline: false,
      of: () => [],
      text: (node) => `$$${String(node.attrs.tex)}$$`,
      draw: (node, dom) => mathIn(dom, String(node.attrs.tex), true),
    },
    showing,
  ),
  shownAs(
    'crossref',
    'span',
    { to: { default: '' } },
    {
      inline: true,
      of: (node) => [`name ${String(node.attrs.to)}`],
      text: (node, s) => s.name(String(node.attrs.to)) ?? '',
      draw: (node, dom, s) => {
        const name = s.name(String(node.attrs.to));
        dom.textContent = name ?? 'what is gone';
        dom.classList.toggle('unknown', !name);
      },
    },
    showing,
  ),
  shownAs(
    'figure',
    'div',
    {
      passage: { default: null },
      picture: { default: null },
      caption: { default: '' },
      alt: { default: '' },
      works: { default: [] },
      cite: { default: null },
    },
    {
      inline: false,
      of: (node) => [String(node.attrs.id), String(node.attrs.cite), ...watchedIn(captionOf(node))],
      text: (node) => textOfInlines(captionOf(node)),
      draw: (node, dom, s) => {
        const { passage, picture, works, cite } = node.attrs;
        const from = (works as unknown[]).length ? s.citation(String(cite), works).html : '';
        const image = document.createElement('img');
        image.src = passage
          ? `/api/passages/${encodeURIComponent(String(passage))}/picture`
          : `${s.pictures}/${encodeURIComponent(String(picture))}`;
        const said = textOfInlines(captionOf(node));
        image.alt = String(node.attrs.alt || said || s.name(String(node.attrs.id)) || 'Figure');
        const caption = document.createElement('p');
        caption.innerHTML = `${captionHtml(node, s, 'Figure')} ${from}`;
        dom.replaceChildren(image, caption);
        dom.title = 'Figure: press Enter for its caption';
      },
    },
    showing,
  ),
];

/** A part of a draft as the editor has it. */
export const partNode = (schema: PmNode['type']['schema'], id: string, content: unknown): PmNode => {
  const node = schema.nodeFromJSON(content);
  node.check();
  return node.type.create({ ...node.attrs, id }, node.content, node.marks);
};

/** A fragment of parts, for setting a whole text. */
export const partsNode = (
  schema: PmNode['type']['schema'],
  parts: readonly { id: string; content: unknown }[],
): Fragment => Fragment.from(parts.map(({ id, content }) => partNode(schema, id, content)));
