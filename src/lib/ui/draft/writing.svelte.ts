import { untrack } from 'svelte';
import { Editor } from '@tiptap/core';
import { SvelteMap, SvelteSet } from 'svelte/reactivity';
import { v7 } from 'uuid';
import {
  citationsOf,
  namesOf,
  sectionsOf,
  worksCited,
  type Block,
  type DraftSection,
  type Inline,
} from '$lib/core/drafting';
import type { DraftSaved, DraftWork } from '$lib/server/drafts';
import type { FromPrinting, ShownEntry } from '../../../workers/printing';
import { ApiError, call, PAGE } from '../frame/client';
import { drafts } from '../frame/drafts';
import { heard } from '../frame/live.svelte';
import { keepingOf, type Clash, type KeepingState, type Unsent } from './keeping';
import { lineHtml } from './line';
import { printingOf } from './printing';
import { extensionsFor } from './schema';
import { showingOf } from './showing';
import { applyTarget, headingAt, readings, written } from './text';

/** What is dragged into a draft from beside it, as the browser names it. */
export const DRAGGED = 'application/x-retexa-material';

/** How long after the last key it is sent, and longest after the first, in milliseconds. */
const REST = 600;
const LONGEST = 1_800;
const REST_HERE = 250;
const AGAIN = 3_000;
const WINDOW = 'retexa-draft-window';

/**
 * Which window this is, to the server: what one window wrote it does not clash with. It stays when the page is loaded again,
 * and another window never has it: it lies in the browser only between two pages.
 */
function windowName(): string {
  const left = sessionStorage.getItem(WINDOW);
  sessionStorage.removeItem(WINDOW);
  return left ?? PAGE;
}

interface Given {
  draft: { id: string; projectId: string };
  look: { style: string; locale: string };
  placeholder: string;
  /** Whether who looks may write; what another writes is seen in any case. */
  edits: boolean;
}

/** An entry of the list under a draft, with the ids it was put there by, if it was. */
export type ListedEntry = ShownEntry & { listed: string[] };

/** The writing of a draft: its editor, what is kept of it, and what is printed in it. */
export function writingOf({ draft, look, placeholder, edits }: Given) {
  const showing = showingOf(`/api/drafts/${draft.id}/pictures`);
  const name = windowName();
  const stored = `text ${draft.id}`;
  const path = `/api/drafts/${draft.id}`;
  let editor: Editor | undefined;
  let page = $state.raw<KeepingState>({ is: 'kept' });
  let clashes = $state.raw<Clash[]>([]);
  let open = $state(false);
  let failed = $state('');
  let sections = $state.raw<DraftSection[]>([]);
  let list = $state.raw<{ entries: ShownEntry[]; hanging: boolean }>({ entries: [], hanging: false });
  let notes = $state.raw<{ id: string; number: number; html: string }[]>([]);
  let labels = $state.raw<ReadonlyMap<string, string>>(new SvelteMap());
  let quotes = $state.raw<[string, string]>(['“', '”']);
  let listed = $state.raw<string[]>([]);
  let inNotes = $state(false);
  let hasList = $state(true);
  /** Goes up whenever the text or the caret is another: for what is shown of the caret. */
  let beat = $state(0);
  let here = $state<string>();

  /** Works by the ids the text names them by. */
  let works = new Map<string, DraftWork>(); // eslint-disable-line svelte/prefer-svelte-reactivity -- handed out as labels
  let at: Record<string, string> = {};

  let retrying: ReturnType<typeof setTimeout> | undefined;
  let ended = false;
  const keeping = keepingOf({
    read: () => (editor ? written(editor) : []),
    apply: (target) => editor && applyTarget(editor, target),
    save: (save) => call<DraftSaved>('POST', path, { ...save, page: name }),
    pull: (since) => call('GET', `${path}?since=${since}`),
    away: (error) => error instanceof ApiError && (error.status === 0 || error.status >= 500),
    told: (state) => {
      page = state;
      // However often it failed, it is tried again once; what came in meanwhile does not call that off.
      if (state.is === 'away' && !ended)
        retrying ??= setTimeout(() => {
          retrying = undefined;
          void keeping.flush();
        }, AGAIN);
    },
    clashes: (there) => (clashes = there),
    store: (unsent) => (unsent ? drafts.keep(stored, unsent) : drafts.drop(stored)),
    newId: v7,
  });

  const stops: (() => void)[] = [];
  const printing = printingOf(hear);
  /** What is printed now: the citations as they stood, by the parts they stand in. */
  let printed = '';
  let byNumber: [string, number][] = [];

  function hear(message: FromPrinting): void {
    if (message.what === 'trouble') failed = message.words;
    else if (message.what === 'style') {
      failed = '';
      [inNotes, hasList, quotes] = [message.notes, message.hasList, message.quotes];
      showing.setInNotes(inNotes);
      printed = '';
      refresh();
    } else {
      showing.setPrinted(message.changed);
      if (message.list) list = message.list;
      setNotes();
    }
  }
  /** The notes under the text: footnotes, and what citations become in a style that cites in notes. */
  function setNotes(): void {
    if (!editor) return;
    const footnotes = footnotesIn(editor);
    notes = byNumber.map(([id, number]) => ({
      id,
      number,
      html: footnotes.get(id) ?? showing.printed(id)?.html ?? '',
    }));
  }

  let fetching = false;
  /** Gets works the text cites that are not here yet, or all of them anew. */
  async function fetchWorks(ids: string[], anew: boolean): Promise<void> {
    if (fetching) return;
    fetching = true;
    try {
      const answer = await call<{ works: DraftWork[]; at: Record<string, string> }>(
        'POST',
        '/api/drafts/works',
        { ids },
      );
      // eslint-disable-next-line svelte/prefer-svelte-reactivity -- handed out as labels
      works = new Map([...(anew ? [] : works), ...answer.works.map((w) => [w.item.id, w] as const)]);
      at = { ...(anew ? {} : at), ...answer.at };
      for (const id of ids) asked.add(id);
      printing.works(answer.works.map(({ item }) => item));
      // eslint-disable-next-line svelte/prefer-svelte-reactivity -- handed out whole
      labels = new Map(
        Object.entries(at).flatMap(([id, to]) => {
          const work = works.get(to);
          return work && !work.binned ? [[id, work.label] as const] : [];
        }),
      );
      showing.setLabels(labels);
      printed = '';
    } catch {
      // The server does not answer: what is cited is printed when it does.
    } finally {
      fetching = false;
    }
    refresh();
  }
  const asked = new SvelteSet<string>();

  /** Brings what is printed up to the text. */
  function refresh(): void {
    if (!editor) return;
    const parts = readings(editor);
    const reads = parts.map(({ read }) => read);
    showing.setNames(namesOf(reads, look.locale));
    const key = parts.map(({ met }) => met).join();
    if (key === printed) return;
    const cited = [...worksCited(reads), ...listed];
    const missing = cited.filter((id) => !asked.has(id));
    if (missing.length) return void fetchWorks(missing, false);
    printed = key;
    const { citations, notes: numbers } = citationsOf(reads, { notes: inNotes });
    byNumber = [...numbers];
    showing.setNotes(numbers);
    const ids = [...new SvelteSet(cited.flatMap((id) => at[id] ?? []))].filter((id) => works.has(id));
    printing.text(
      ids,
      citations.map((c) => ({
        ...c,
        cites: c.cites.map((cite) => ({ ...cite, id: at[cite.id] ?? cite.id })),
      })),
    );
  }
  function footnotesIn({ state }: Editor): Map<string, string> {
    // eslint-disable-next-line svelte/prefer-svelte-reactivity -- handed out as notes
    const found = new Map<string, string>();
    state.doc.descendants((node) => {
      if (node.type.name === 'footnote')
        found.set(
          String(node.attrs.id),
          lineHtml(node.attrs.content as Inline[], showing),
        );
    });
    return found;
  } // prettier-ignore

  let first = 0;
  let sending: ReturnType<typeof setTimeout> | undefined;
  let storing: ReturnType<typeof setTimeout> | undefined;
  let counting: ReturnType<typeof setTimeout> | undefined;
  const count = () => {
    if (!editor) return;
    sections = sectionsOf(readings(editor).map(({ read }) => read));
    setNotes();
  };
  function changed(remote: boolean): void {
    refresh();
    clearTimeout(counting);
    counting = setTimeout(count, 200);
    if (remote || !edits) return;
    page = { is: 'waiting' };
    first ||= Date.now();
    clearTimeout(sending);
    sending = setTimeout(
      () => {
        first = 0;
        void keeping.flush();
      },
      Math.max(0, Math.min(REST, first + LONGEST - Date.now())),
    );
    // The browser has it before the server does.
    storing ??= setTimeout(() => {
      storing = undefined;
      keeping.keepHere();
    }, REST_HERE);
  }

  const flush = (): Promise<void> => (edits ? keeping.flush() : Promise.resolve());
  const leave = () => {
    if (!edits) return;
    keeping.keepHere();
    sessionStorage.setItem(WINDOW, name);
    if (keeping.waiting()) void keeping.flush();
  };

  /** A page that comes back from being put aside has its name again, and no other gets it. */
  const back = () => sessionStorage.removeItem(WINDOW);

  return {
    get editor() {
      return open ? editor : undefined;
    },
    /** Goes up whenever the caret or the text is another. */
    get beat() {
      return beat;
    },
    get state() {
      return page;
    },
    get clashes() {
      return clashes;
    },
    get open() {
      return open;
    },
    get failed() {
      return failed;
    },
    get sections() {
      return sections;
    },
    get entries(): ListedEntry[] {
      return list.entries.map((entry) => ({
        ...entry,
        listed: listed.filter((id) => (at[id] ?? id) === entry.id),
      }));
    },
    get hanging() {
      return list.hanging;
    },
    get notes() {
      return notes;
    },
    get labels() {
      return labels;
    },
    get quotes() {
      return quotes;
    },
    get inNotes() {
      return inNotes;
    },
    get hasList() {
      return hasList;
    },
    /** The heading one writes under, by the id of its part. */
    get here() {
      return here;
    },
    showing,
    /** Begins; gives what ends it. */
    async begin(element: HTMLElement, props: Editor['options']['editorProps']): Promise<void> {
      editor = new Editor({
        element,
        extensions: extensionsFor(showing, placeholder),
        editable: false,
        editorProps: props,
        // A dialogue that opens takes the focus, and the editor says so at once, while the page is being set: that depends on nothing here.
        onTransaction: ({ transaction }) =>
          untrack(() => {
            beat++;
            if (editor) here = headingAt(editor);
            if (transaction.docChanged) changed(Boolean(transaction.getMeta('remote')));
          }),
      });
      const [told] = await Promise.all([
        call<Omit<DraftSaved, 'kept' | 'clashes'> & { listed: string[] }>('GET', path),
        printing.style(look.style, look.locale),
      ]);
      listed = told.listed;
      keeping.open(told, edits ? drafts.find<Unsent>(stored) : undefined);
      editor.setEditable(edits);
      open = true;
      count();
      refresh();
      if (edits && keeping.waiting()) void keeping.flush();
      window.addEventListener('pagehide', leave);
      window.addEventListener('pageshow', back);
      stops.push(
        heard('drafts', () => void keeping.pull()),
        heard('sources', () => void renewWorks()),
      );
    },
    end(): void {
      ended = true;
      for (const stop of stops) stop();
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('pageshow', back);
      if (edits) keeping.keepHere();
      clearTimeout(retrying);
      clearTimeout(sending);
      clearTimeout(storing);
      clearTimeout(counting);
      printing.end();
      const going = editor;
      void flush().finally(() => going?.destroy());
    },
    /** Prints in another style or language. */
    setLook: (style: string, locale: string): Promise<void> => {
      look = { style, locale };
      return printing.style(style, locale);
    },
    setListed(ids: string[]): void {
      listed = ids;
      printed = '';
      refresh();
    },
    renewWorks,
    flush,
    decide: (id: string, how: 'mine' | 'theirs' | 'both') => keeping.decide(id, how),
    /** Makes the text what a version says; that is undone like anything one wrote. */
    bringBack(parts: { id: string; content: Block }[]): void {
      if (!editor) return;
      const content = parts.map((part) => ({ ...part.content, attrs: { ...('attrs' in part.content ? part.content.attrs : {}), id: part.id } })); // prettier-ignore
      editor.chain().setMeta('addToHistory', true).setContent({ type: 'doc', content }).run();
    },
    /** All words of the text. */
    get words(): number {
      return sections.reduce((sum, s) => sum + s.words, 0);
    },
  };
  async function renewWorks(): Promise<void> {
    if (editor) await fetchWorks([...asked], true);
  }
}

export type Writing = ReturnType<typeof writingOf>;
