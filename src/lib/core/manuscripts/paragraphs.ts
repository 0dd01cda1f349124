import { runsToText, type PrintedCitation, type PrintedText, type Run } from '../citing';
import { citationsOfMarkdown } from '../drafting';
import { squash } from '../text';
import { setManuscript, type FoundInText, type SetManuscript, type Works } from './setting';

/** Stands in the text of a paragraph for what is no text: a picture, a note, a citation that was printed before. */
export const THING = '\ufffc';

/** A citation that was printed before: what it says in our syntax, and what of the sentence gave way to a note. */
export interface Kept {
  source: string;
  /** The blank that stood before it, and the mark behind it, where they were taken away or moved. */
  blank: string;
  mark: string;
}

/** What stands in a paragraph for `THING`. */
export type Thing = { is: 'note'; id: string } | { is: 'kept'; id: string; kept: Kept } | { is: 'other' };

/** A paragraph of a document, with the note it stands in. */
export interface Paragraph {
  text: string;
  things: ReadonlyMap<number, Thing>;
  note: string | undefined;
}

/** A citation of a document in its paragraph: what of its text it stands for, and how it can be found again. */
export interface Placed<P extends Paragraph> {
  id: string;
  paragraph: P;
  from: number;
  to: number;
  kept: Kept;
  /** It is all its note says. */
  alone: boolean;
  named: boolean;
}

const MARK = /^[.,;:!?]/;

/** What a paragraph holds, and how its citations stand in it. */
interface InParagraph<P extends Paragraph> {
  found: (FoundInText & { at: number })[];
  placed: Placed<P>[];
}

/** A citation that was copied stands twice under one name: the second is given one of its own. */
function renamedCopies<P extends Paragraph>(met: readonly InParagraph<P>[], newId: () => string): void {
  const names = new Set<string>();
  for (const { found, placed } of met)
    for (const one of placed) {
      if (names.has(one.id)) {
        const id = newId();
        for (const other of found)
          if (other.what === 'cite' && other.id === one.id && other.at === one.from) other.id = id;
        one.id = id;
      }
      names.add(one.id);
    }
}

/** What a paragraph holds, in order: citations that are written in it, citations printed before, and notes. */
function foundIn<P extends Paragraph>(paragraph: P, nth: number, newId: () => string): InParagraph<P> {
  const { text, things, note } = paragraph;
  const found: (FoundInText & { at: number })[] = [];
  const placed: Placed<P>[] = [];
  const place = `paragraph ${nth.toLocaleString('en')}, “${excerptOf(paragraph)}”`;
  const add = (id: string, from: number, to: number, kept: Kept) => {
    const [citation] = citationsOfMarkdown(kept.source, { plain: true }).citations;
    if (!citation) return;
    const { cites, named } = citation;
    const alone = note !== undefined && text.slice(0, from).trim() === '' && text.slice(to).trim() === '';
    found.push({ what: 'cite', id, cites, named, footnote: note, place, at: from });
    placed.push({ id, paragraph, from, to, kept, alone, named });
  };
  for (const { from, to } of citationsOfMarkdown(text, { plain: true }).citations) {
    // A picture or a note within a citation is not the citation’s.
    if (text.slice(from, to).includes(THING)) continue;
    add(newId(), from, to, { source: text.slice(from, to), blank: '', mark: '' });
  }
  for (const [at, thing] of things) {
    if (thing.is === 'note') found.push({ what: 'footnote', id: thing.id, at });
    if (thing.is !== 'kept') continue;
    const { kept } = thing;
    // The mark that was put before the sign of the note belongs behind the citation again.
    const moved = kept.mark !== '' && text.slice(at - kept.mark.length, at) === kept.mark;
    add(thing.id, moved ? at - kept.mark.length : at, at + 1, { ...kept, mark: moved ? kept.mark : '' });
  }
  return { found: found.sort((a, b) => a.at - b.at), placed };
}

/** How a paragraph begins, its citations as they were written. */
const excerptOf = ({ text, things }: Paragraph) => {
  const said = text
    .slice(0, 200)
    .split('')
    .map((c, at) => {
      const thing = c === THING ? things.get(at) : undefined;
      return thing?.is === 'kept' ? thing.kept.source : c === THING ? '' : c;
    });
  const plain = squash(said.join(''));
  return plain.length > 40 ? `${plain.slice(0, 39).trimEnd()}…` : plain;
};

/** How a citation stands in its sentence: what of the text it takes the place of, and what prints. */
export interface Standing {
  from: number;
  to: number;
  kept: Kept;
  /** What stands before what can be found again, and behind it. */
  before: string;
  after: string;
  /** What prints in the line; `note`: what prints in a note of its own, whose sign stands behind it. */
  line: Run[];
  note?: Run[];
}

/** Where a printed citation goes. The sign of a note stands behind the mark that follows, without a blank before it. */
export function standingOf(
  { paragraph: { text, note }, from, to, kept, alone, named }: Placed<Paragraph>,
  { author = [], runs }: PrintedCitation,
  notes: boolean,
): Standing {
  const asIs = { from, to, kept: { ...kept, blank: '', mark: '' }, before: kept.blank, after: kept.mark };
  if (notes && note !== undefined) {
    // The stop that ends what a style prints in a note is wanted where the note ends with it.
    const ends = alone || (named && text.slice(to).trim() === '');
    const bare = ends ? runs : withoutStop(runs);
    return { ...asIs, line: alone || named ? bare : [{ text: '(' }, ...bare, { text: ')' }] };
  }
  const raised = runs.length > 0 && runs.every((run) => run.raised);
  const both = [...author, ...(author.length && runs.length ? [{ text: ' ' }] : []), ...runs];
  if (notes && author.length) return { ...asIs, line: author, note: runs };
  // Raised numbers and signs of notes stand at the word, and of nothing no blank is left.
  const atWord = notes || (!author.length && (raised || runsToText(runs).trim() === ''));
  if (!atWord) return { ...asIs, line: both };
  const blank = kept.blank || (/[ \u00a0]+$/.exec(text.slice(Math.max(0, from - 20), from))?.[0] ?? '');
  const start = kept.blank ? from : from - blank.length;
  if (!notes) return { ...asIs, from: start, kept: { ...kept, blank, mark: '' }, before: '', line: both };
  const mark = kept.mark || (MARK.exec(text.slice(to, to + 1))?.[0] ?? '');
  return {
    from: start,
    to: kept.mark ? to : to + mark.length,
    kept: { ...kept, blank, mark },
    before: mark,
    after: '',
    line: [],
    note: runs,
  };
}

const withoutStop = (runs: Run[]): Run[] =>
  runs.map((run, i) => (i === runs.length - 1 ? { ...run, text: run.text.replace(/\.$/, '') } : run));

/** Gives names to citations, other than those that were printed before have. */
function ownIds(taken: Iterable<string>): () => string {
  let last = Math.max(0, ...[...taken].map((id) => Number(/^c(\d{1,9})$/.exec(id)?.[1] ?? 0)));
  return () => `c${++last}`;
}

/** What paragraphs hold, in the order a text is read: a note where it is referred to. */
function inReadingOrder(
  paragraphs: readonly { note: string | undefined; found: readonly FoundInText[] }[],
): FoundInText[] {
  const ofNote = new Map<string, FoundInText[]>();
  for (const { note, found } of paragraphs)
    if (note !== undefined) ofNote.set(note, [...(ofNote.get(note) ?? []), ...found]);
  return paragraphs.flatMap(({ note, found }) =>
    note !== undefined
      ? []
      : found.flatMap((one) => (one.what === 'footnote' ? [one, ...(ofNote.get(one.id) ?? [])] : [one])),
  );
}

/**
 * Finds the citations of a document’s paragraphs and prints them in the order a text is read. `taken`: the names of those that were
 * printed before.
 */
export function setParagraphs<P extends Paragraph>(
  paragraphs: readonly P[],
  taken: Iterable<string>,
  works: Works,
  printer: PrintedText,
  options: { notes: boolean },
): SetManuscript & { placed: Placed<P>[] } {
  const newId = ownIds(taken);
  const met = paragraphs.map((paragraph, i) => foundIn(paragraph, i + 1, newId));
  renamedCopies(met, newId);
  const inOrder = inReadingOrder(paragraphs.map(({ note }, i) => ({ note, found: met[i]!.found })));
  const placed = met.flatMap((one) => one.placed);
  return { ...setManuscript(inOrder, works, printer, options), placed };
}
