import type { CiteItem, TextCitation } from '../citing';
import { begun, citeItem, type CitedWork } from './cites';
import { blocksIn, captionIn, inlinesIn, type Block, type DraftPart, type Inline } from './document';

/** A citation or a footnote where it is met in a part. */
export type Met =
  | { what: 'cite'; id: string; works: CitedWork[]; named: boolean; footnote?: string }
  | { what: 'footnote'; id: string };

/** What is to be known of a part of a draft. It has to do with nothing outside the part. */
export interface PartReading {
  id: string;
  /** How many words stand in it, those of footnotes apart. */
  words: number;
  met: Met[];
  /** Passages it was written from. */
  passages: string[];
  /** What it is, where it can be counted or stood under. */
  heading?: { level: number; text: string; goal?: number };
  captioned?: { as: 'figure' | 'table'; bare: boolean };
  /** Pictures of one’s own in it, by their SHA-256. */
  pictures: string[];
}

/** The words of what is said, without marks; citations and formulas are none. */
export const textOfInlines = (content: readonly Inline[]): string =>
  content.map((c) => (c.type === 'text' ? c.text : c.type === 'hardBreak' ? '\n' : '')).join('');

/** All that is said in a block, blocks in it one below the other. */
export const textOfBlock = (block: Block): string =>
  [textOfInlines(inlinesIn(block)), textOfInlines(captionIn(block)), ...blocksIn(block).map(textOfBlock)]
    .filter(Boolean)
    .join('\n');

const WORD = /[\p{L}\p{N}]+(?:['’\-.][\p{L}\p{N}]+)*/gu;
/** Scripts that put no blanks between words: a letter counts as one. Common practice. */
const LETTERS = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/gu;

/** How many words a text has. */
export function countWords(text: string): number {
  const letters = text.match(LETTERS)?.length ?? 0;
  return letters + (text.replace(LETTERS, ' ').match(WORD)?.length ?? 0);
}

function meet(content: readonly Inline[], into: PartReading, footnote?: string): void {
  for (const one of content) {
    for (const m of 'marks' in one ? (one.marks ?? []) : [])
      if (m.type === 'passage') into.passages.push(m.attrs.id);
    if (one.type === 'cite') {
      const { id, works, named } = one.attrs;
      into.met.push({ what: 'cite', id, works, named, ...(footnote ? { footnote } : {}) });
    } else if (one.type === 'footnote' && !footnote) {
      into.met.push({ what: 'footnote', id: one.attrs.id });
      meet(one.attrs.content, into, one.attrs.id);
    }
  }
}

function go(block: Block, into: PartReading): void {
  const said = inlinesIn(block);
  into.words += countWords(textOfInlines(said));
  meet(said, into);
  meet(captionIn(block), into);
  if (block.type === 'blockquote' && block.attrs?.passage) into.passages.push(block.attrs.passage);
  if (block.type === 'figure') {
    if (block.attrs.passage) into.passages.push(block.attrs.passage);
    if (block.attrs.picture) into.pictures.push(block.attrs.picture);
    if (block.attrs.works.length)
      into.met.push({ what: 'cite', id: block.attrs.cite, works: block.attrs.works, named: false });
  }
  for (const one of blocksIn(block)) go(one, into);
}

/** Reads a part of a draft. */
export function readPart({ id, content }: DraftPart): PartReading {
  const read: PartReading = { id, words: 0, met: [], passages: [], pictures: [] };
  go(content, read);
  read.passages = [...new Set(read.passages)];
  if (content.type === 'heading') {
    const { level, goal } = content.attrs;
    read.heading = { level, text: textOfInlines(content.content ?? []).trim(), ...(goal ? { goal } : {}) };
  }
  if (content.type === 'figure' || content.type === 'table') {
    const said = captionIn(content);
    const bare = said.every((c) => c.type === 'text' && !c.text.trim());
    read.captioned = { as: content.type, bare };
  }
  return read;
}

/** The citations of a draft in order, each with the number of its note, and the number of each note by the id of what made it. */
export interface DraftCitations {
  citations: TextCitation[];
  notes: Map<string, number>;
}

/** A citation or a footnote of any text, in the order they are read. */
export type MetInText =
  | { what: 'cite'; id: string; cites: CiteItem[]; named: boolean; footnote?: string | undefined }
  | { what: 'footnote'; id: string };

/**
 * Citations in the order they are read, as a style is given them. `notes`: the style cites in notes, and each citation that stands
 * in none makes one; they are counted together with the footnotes there are. A citation in a footnote is cited whole.
 */
export function numbered(all: Iterable<MetInText>, { notes }: { notes: boolean }): DraftCitations {
  const numbers = new Map<string, number>();
  const citations: TextCitation[] = [];
  let last = 0;
  for (const one of all) {
    if (one.what === 'footnote') {
      numbers.set(one.id, ++last);
      continue;
    }
    if (one.footnote === undefined && notes) numbers.set(one.id, ++last);
    const note = one.footnote === undefined ? (notes ? last : 0) : (numbers.get(one.footnote) ?? 0);
    const named = one.named && !(notes && one.footnote !== undefined);
    // A note begins with a capital.
    const alone = notes && !named && one.footnote === undefined;
    citations.push({ id: one.id, cites: alone ? begun(one.cites) : one.cites, note, ...(named ? { named } : {}) });
  }
  return { citations, notes: numbers };
} // prettier-ignore

/** The citations of a draft as they stand; see `numbered`. */
export const citationsOf = (
  parts: readonly Pick<PartReading, 'met'>[],
  options: { notes: boolean },
): DraftCitations =>
  numbered(
    parts.flatMap(({ met }) =>
      met.map((one): MetInText => (one.what === 'cite' ? { ...one, cites: one.works.map(citeItem) } : one)),
    ),
    options,
  );

/** The works a draft cites, each once, as they are first cited. */
export const worksCited = (parts: readonly Pick<PartReading, 'met'>[]): string[] => [
  ...new Set(parts.flatMap(({ met }) => met.flatMap((m) => (m.what === 'cite' ? m.works.map((w) => w.id) : [])))),
]; // prettier-ignore

/** A section of a draft: a heading and what stands under it up to the next. */
export interface DraftSection {
  /** The id of the part the heading is; empty for what stands before the first. */
  id: string;
  level: number;
  name: string;
  /** Words right under it, and with those of the sections under it. */
  words: number;
  whole: number;
  goal?: number;
  /** How many citations stand right under it. */
  citations: number;
}

/** The sections of a draft in order; what stands before the first heading comes first, without a name, if there is any. */
export function sectionsOf(parts: readonly PartReading[]): DraftSection[] {
  const sections: DraftSection[] = [{ id: '', level: 0, name: '', words: 0, whole: 0, citations: 0 }];
  for (const { id, heading, words, met } of parts) {
    if (heading) {
      const { level, text: name, goal } = heading;
      sections.push({ id, level, name, words: 0, whole: 0, citations: 0, ...(goal ? { goal } : {}) });
      continue;
    }
    const here = sections[sections.length - 1]!;
    here.words += words;
    here.citations += met.filter((m) => m.what === 'cite').length;
  }
  // From the last to the first: what is under a section is known before it.
  const above: DraftSection[] = [];
  for (const section of [...sections].reverse()) {
    section.whole = section.words;
    while (above.length && section.level > 0 && above[above.length - 1]!.level > section.level)
      section.whole += above.pop()!.whole;
    above.push(section);
  }
  return sections[0]!.words || sections[0]!.citations ? sections : sections.slice(1);
}

/** What figures and tables are called, by the language of the text. Common practice; English where it is another. */
const CAPTIONS: Record<string, [figure: string, table: string]> = {
  en: ['Figure', 'Table'], de: ['Abbildung', 'Tabelle'], fr: ['Figure', 'Tableau'], es: ['Figura', 'Tabla'],
  it: ['Figura', 'Tabella'], pt: ['Figura', 'Tabela'], nl: ['Figuur', 'Tabel'],
}; // prettier-ignore

/** What figures, tables and headings are called where the text points at them, by the id of their part. */
export function namesOf(parts: readonly PartReading[], locale: string): Map<string, string> {
  const [figure, table] = CAPTIONS[locale.slice(0, 2)] ?? CAPTIONS.en!;
  const counted = { figure: 0, table: 0 };
  const names = new Map<string, string>();
  for (const { id, captioned, heading } of parts) {
    if (captioned) names.set(id, `${captioned.as === 'figure' ? figure : table} ${++counted[captioned.as]}`);
    else if (heading?.text) names.set(id, `“${heading.text}”`);
  }
  return names;
}
