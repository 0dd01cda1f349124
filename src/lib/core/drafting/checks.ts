import { squash, withoutTrailing } from '../text';
import { blocksIn, inlinesIn, type Block, type DraftPart, type Inline } from './document';
import { countWords, readPart, sectionsOf, textOfBlock, type PartReading } from './reading';

/** What is looked for in a draft: what it is called, and why it matters. */
export const DRAFT_CHECKS = {
  'work-gone': { name: 'Cited works that are gone', why: 'The citation prints nothing for a work that is not in the library.' },
  'fields-missing': { name: 'Cited records with fields missing', why: 'What the record lacks is missing in the list.' },
  retracted: { name: 'Retracted works', why: 'A retracted work is cited to say that it was retracted.' },
  'both-versions': { name: 'Two versions of one work', why: 'A preprint and what came of it, or two editions, are seldom meant both.' },
  'quotation-differs': { name: 'Quotations that differ from their passage', why: 'Readers take what stands in quotation marks for the words of the work.' },
  'quotation-uncited': { name: 'Quotations without a citation beside them', why: 'A quotation is followed by its source and place.' },
  'quotation-without-place': { name: 'Quotations without a place', why: 'Nobody finds them again without a page.' },
  'block-too-short': { name: 'Short quotations set apart', why: 'The style sets longer ones apart and runs shorter ones in.' },
  'quotation-too-long': { name: 'Long quotations run in', why: 'The style sets quotations of this length apart.' },
  'section-uncited': { name: 'Sections without a citation', why: 'A claim that rests on nothing is the first thing a reader asks about.' },
  'listed-uncited': { name: 'Works in the list that are not cited', why: 'The list holds what is cited; these were put there by hand.' },
  'passage-gone': { name: 'Passages that are gone', why: 'The text came from a passage that is in the bin or deleted.' },
  'without-caption': { name: 'Figures and tables without a caption', why: 'A figure is called by its number and caption.' },
  'points-nowhere': { name: 'Pointers to what is gone', why: 'The text points at a figure, table or section that is not there.' },
} as const; // prettier-ignore
export type DraftCheck = keyof typeof DRAFT_CHECKS;

/** Something to look at in a draft, at a part and, where it is one, at a citation in it. */
export interface DraftFinding {
  check: DraftCheck;
  /** The id of the part; empty where it is of the draft as a whole. */
  part: string;
  words: string;
  cite?: string;
  /** The source it is about. */
  source?: string;
}

/** What must be known of a work that is cited. */
export interface KnownWork {
  label: string;
  /** Names of fields the style prints and the record lacks. */
  lacks: string[];
  retracted: boolean;
}

/** What must be known of a passage the draft was written from: its words, and whether its place is said. */
export interface KnownPassage {
  sourceId: string;
  exact: string;
  wording: string | null;
  placed: boolean;
}

/** What a draft is checked with. Sources and passages that are not named are gone. */
export interface DraftAround {
  works: ReadonlyMap<string, KnownWork>;
  /** Which work an id stands for, where it is another: sources that were merged. */
  at: Readonly<Record<string, string>>;
  passages: ReadonlyMap<string, KnownPassage>;
  /** Works that are versions of one another, with words for what they are. */
  related: readonly { a: string; b: string; words: string }[];
  /** Sources put in the list by hand. */
  listed: readonly string[];
  /** From how many words on a quotation is set apart. */
  blockWords: number;
}

/** From how many words on a section that cites nothing is told. */
export const SECTION_WORDS = 80;
const SHOWN = 60;
const short = (text: string) => (text.length > SHOWN ? `${text.slice(0, SHOWN)}…` : text);

/** As quotations are compared: marks of quotation, blanks, dashes and the case of the first letter are the writer’s. */
const plain = (text: string): string =>
  withoutTrailing(
    squash(text)
      .replace(/[“”„«»‘’‚‹›"'`]/g, '')
      .replace(/[‐-―]/g, '-'),
    '.,;:!? ',
  )
    .trim()
    .replace(/^./u, (c) => c.toLowerCase());

/** Whether words are those of a work, parts of them left out or put in in brackets as quotations do. */
export function quotesTruly(said: string, { exact, wording }: Pick<KnownPassage, 'exact' | 'wording'>): boolean {
  const wanted = [exact, wording ?? ''].filter(Boolean).map(plain);
  const whole = plain(said);
  if (wanted.some((w) => w.includes(whole))) return true;
  // What stands in brackets is the writer’s, and three dots are what was left out.
  const pieces = said
    .split(/\[[^[\]]{0,500}\]|…|\.\s?\.\s?\./)
    .map(plain)
    .filter(Boolean);
  if (pieces.length < 2) return false;
  return wanted.some((w) => {
    let at = 0;
    return pieces.every((piece) => {
      const found = w.indexOf(piece, at);
      at = found + piece.length;
      return found !== -1;
    });
  });
} // prettier-ignore

/** Stretches of a line that are quoted from one passage, in order. */
function quotedIn(content: readonly Inline[]): { passage: string; text: string }[] {
  const found: { passage: string; text: string }[] = [];
  let last: { passage: string; text: string } | undefined;
  for (const one of content) {
    const mark = one.type === 'text' ? one.marks?.find((m) => m.type === 'passage') : undefined;
    if (one.type !== 'text' || mark?.type !== 'passage' || mark.attrs.as !== 'quotation') {
      if (one.type === 'text' || one.type === 'cite') last = undefined;
      continue;
    }
    if (last?.passage === mark.attrs.id) last.text += one.text;
    else found.push((last = { passage: mark.attrs.id, text: one.text }));
  }
  return found;
}

/** The blocks of text of a part, each with the passage it is set apart from. */
function* linesOf(block: Block, passage?: string): Generator<{ block: Block; content: Inline[]; passage?: string }> {
  const of = block.type === 'blockquote' ? (block.attrs?.passage ?? undefined) : passage;
  const content = inlinesIn(block);
  if (content.length) yield { block, content, ...(of ? { passage: of } : {}) };
  for (const one of blocksIn(block)) yield* linesOf(one, of);
} // prettier-ignore

/** What is to be looked at in a draft, in the order of the text; what is of the whole comes last. */
export function checkDraft(parts: readonly DraftPart[], around: DraftAround): DraftFinding[] {
  const found: DraftFinding[] = [];
  const reads = parts.map(readPart);
  const at = (id: string) => around.at[id] ?? id;
  const ids = new Set(parts.map(({ id }) => id));
  const cited = new Set<string>();
  const told = new Set<string>();
  parts.forEach(({ id: part, content }, i) => {
    const read = reads[i]!;
    checkCited(read);
    for (const passage of read.passages)
      if (!around.passages.has(passage))
        found.push({ check: 'passage-gone', part, words: short(textOfBlock(content)) });
    if (read.captioned?.bare)
      found.push({ check: 'without-caption', part, words: read.captioned.as === 'figure' ? 'A figure' : 'A table' }); // prettier-ignore
    for (const line of linesOf(content)) checkPointers(part, line.content);
    checkQuoted(part, content, read);
  });

  function checkCited({ id: part, met }: PartReading): void {
    for (const one of met) {
      if (one.what !== 'cite') continue;
      for (const given of one.works) {
        const id = at(given.id);
        const work = around.works.get(id);
        cited.add(id);
        if (!work) {
          found.push({ check: 'work-gone', part, cite: one.id, words: 'A work that is not in the library' });
          continue;
        }
        // What is the matter with a work is said where it is first cited.
        if (told.has(id)) continue;
        told.add(id);
        const say = (check: DraftCheck, words: string) =>
          found.push({ check, part, cite: one.id, source: id, words });
        if (work.lacks.length) say('fields-missing', `${work.label}: ${work.lacks.join(', ')}`);
        if (work.retracted) say('retracted', work.label);
      }
    }
  }

  function checkPointers(part: string, content: readonly Inline[]): void {
    for (const one of content)
      if (one.type === 'crossref' && !ids.has(one.attrs.to))
        found.push({ check: 'points-nowhere', part, words: 'It points at what is not there' });
  }

  function checkQuoted(part: string, content: Block, { met }: PartReading): void {
    const cites = met.flatMap((m) => (m.what === 'cite' ? m.works : []));
    const quotations = [...linesOf(content)].flatMap(({ content: line }) => quotedIn(line));
    const apart = content.type === 'blockquote' ? content.attrs?.passage : undefined;
    if (apart) {
      const text = textOfBlock(content);
      if (countWords(text) < around.blockWords)
        found.push({ check: 'block-too-short', part, words: `${countWords(text)} words, set apart from ${around.blockWords} on: ${short(text)}` }); // prettier-ignore
      quotations.push({ passage: apart, text });
    }
    for (const { passage, text } of quotations) {
      const known = around.passages.get(passage);
      if (!known) continue;
      const say = (check: DraftCheck, words = short(text)) =>
        found.push({ check, part, words, source: known.sourceId });
      if (!quotesTruly(text, known)) say('quotation-differs');
      const beside = cites.filter((work) => at(work.id) === at(known.sourceId));
      if (beside.length === 0) say('quotation-uncited');
      else if (!known.placed && beside.every((work) => !work.locator)) say('quotation-without-place');
      if (passage !== apart && countWords(text) >= around.blockWords)
        say('quotation-too-long', `${countWords(text)} words: ${short(text)}`);
    }
  }

  for (const { id, name, words, citations } of sectionsOf(reads))
    if (words >= SECTION_WORDS && citations === 0)
      found.push({ check: 'section-uncited', part: id, words: `${name || 'What stands before the first heading'}: ${words.toLocaleString('en')} words` }); // prettier-ignore
  for (const { a, b, words } of around.related)
    if (cited.has(a) && cited.has(b)) found.push({ check: 'both-versions', part: '', words, source: a });
  for (const id of around.listed.map(at))
    if (!cited.has(id) && around.works.has(id))
      found.push({ check: 'listed-uncited', part: '', words: around.works.get(id)!.label, source: id });
  return found;
}
