import {
  createPrinter,
  listTerms,
  runsToHtml,
  runsToText,
  styleFacts,
  type PrintedText,
  type TextCitation,
  type Tree,
} from '../lib/core/citing';
import type { CslItem } from '../lib/core/source';

/** What the page says to it: the style to print in, works that came or changed, and the citations of a text in order. */
export type ToPrinting =
  | { what: 'style'; style: Tree; locale: Tree; lang: string }
  | { what: 'works'; works: CslItem[] }
  | { what: 'text'; turn: number; works: string[]; citations: TextCitation[] };

/** A citation as it is shown. In a note style `html` stands in the note, `author` in the sentence. */
export interface ShownCitation {
  html: string;
  text: string;
  author: string;
}

/** An entry of the list as it is shown. */
export interface ShownEntry {
  id: string;
  html: string;
  label: string;
}

/** What it says to the page: how the style cites; what of a text prints otherwise than before; or why nothing prints. */
export type FromPrinting =
  | { what: 'style'; notes: boolean; hasList: boolean; quotes: [string, string] }
  | {
      what: 'text';
      turn: number;
      changed: Record<string, ShownCitation>;
      /** The list, where it is another than before. */
      list?: { entries: ShownEntry[]; hanging: boolean };
    }
  | { what: 'trouble'; words: string };

const say = (message: FromPrinting) => self.postMessage(message);
let text: PrintedText | undefined;
const works = new Map<string, CslItem>();
/** What the page has. */
let shown = new Map<string, unknown>();
let listed: unknown[] = [];

const entryShown = new WeakMap<object, ShownEntry>();

function print({ turn, works: ids, citations }: Extract<ToPrinting, { what: 'text' }>): void {
  if (!text) return;
  const printed = text.set(
    ids.flatMap((id) => works.get(id) ?? []),
    citations,
  );
  const changed: Record<string, ShownCitation> = {};
  const now = new Map<string, unknown>();
  for (const citation of printed.citations) {
    now.set(citation.id, citation);
    if (shown.get(citation.id) === citation) continue;
    changed[citation.id] = {
      html: runsToHtml(citation.runs),
      text: runsToText(citation.runs),
      author: citation.author ? runsToHtml(citation.author) : '',
    };
  }
  shown = now;
  const { entries, hangingIndent } = printed.list;
  const same = entries.length === listed.length && entries.every((entry, i) => entry === listed[i]);
  listed = entries;
  say({
    what: 'text',
    turn,
    changed,
    ...(same
      ? {}
      : {
          list: {
            hanging: hangingIndent,
            entries: entries.map((entry) => {
              const known = entryShown.get(entry) ?? {
                id: entry.id,
                html: runsToHtml(entry.runs, { links: true }),
                label: entry.label ?? '',
              };
              entryShown.set(entry, known);
              return known;
            }),
          },
        }),
  });
}

/** Prints the citations of a text as they stand in it, beside the page in which it is written. */
self.onmessage = ({ data }: MessageEvent<ToPrinting>) => {
  try {
    if (data.what === 'style') {
      text = createPrinter(data.style, data.locale, data.lang).text();
      [shown, listed] = [new Map(), []];
      say({
        what: 'style',
        notes: data.style.attrs.class === 'note',
        hasList: styleFacts(data.style).hasList,
        quotes: listTerms(data.locale).quotes,
      });
    } else if (data.what === 'works') for (const work of data.works) works.set(work.id, work);
    else print(data);
  } catch (error) {
    say({ what: 'trouble', words: (error as Error).message });
  }
};
