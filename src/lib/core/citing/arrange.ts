import type { CslType } from '../source';
import type { Locator } from '../passages';
import type { PrintedList, PrintedReference } from './printer';
import { placeIn, type ListTerms } from './terms';

/** What may stand under an entry of an annotated list. */
export const ANNOTATION_KINDS = ['gist', 'own words', 'quotation', 'credibility'] as const;
export type AnnotationKind = (typeof ANNOTATION_KINDS)[number];

/**
 * What goes under an entry: a point in one line, own words, or a quotation, with its place in the work; or how far it can be
 * trusted.
 */
export interface Remark {
  kind: AnnotationKind;
  text: string;
  locator?: Locator;
}

/** A remark as one paragraph, in the marks and words of the list's language. */
export interface Annotation {
  kind: AnnotationKind;
  text: string;
}

/** Headings of a list grouped by kind of source, in the order they stand. Common practice: the kinds a thesis separates. */
const KINDS: [string, CslType[]][] = [
  ['Manuscripts and documents', ['manuscript', 'personal_communication', 'document', 'collection', 'pamphlet']],
  ['Law', ['legal_case', 'legislation', 'regulation', 'bill', 'hearing', 'treaty', 'patent']],
  ['Books', ['book', 'classic']],
  ['Chapters and papers', ['chapter', 'paper-conference', 'entry', 'entry-dictionary', 'entry-encyclopedia']],
  ['Articles', ['article-journal', 'article', 'review', 'review-book', 'periodical']],
  ['Press', ['article-newspaper', 'article-magazine']],
  ['Theses', ['thesis']],
  ['Reports and standards', ['report', 'standard']],
  ['Web pages', ['webpage', 'post', 'post-weblog']],
  ['Data and software', ['dataset', 'software']],
  ['Maps and pictures', ['map', 'figure', 'graphic']],
  ['Recordings and performances', ['motion_picture', 'broadcast', 'song', 'interview', 'speech', 'performance', 'musical_score', 'event']],
]; // prettier-ignore

/** The heading a type stands under in a list grouped by kind. */
export const kindOf = (type: CslType): string => KINDS.find(([, types]) => types.includes(type))![0];
export const KIND_HEADINGS = KINDS.map(([heading]) => heading);

/**
 * A list grouped under headings, which come in the order given; within each the style's order stays. An entry whose
 * heading is not among them comes last, under `rest`.
 */
export function grouped(
  list: PrintedList,
  headingOf: (id: string) => string | undefined,
  order: string[],
  rest: string,
): PrintedList {
  const groups = new Map<string, PrintedReference[]>([...order, rest].map((heading) => [heading, []]));
  for (const entry of list.entries) {
    const heading = headingOf(entry.id);
    (groups.get(heading ?? rest) ?? groups.get(rest)!).push(entry);
  }
  return {
    ...list,
    entries: [...groups].flatMap(([heading, entries]) =>
      entries.map((entry, i) => (i === 0 ? { ...entry, heading } : entry)),
    ),
  };
}

/** A list with remarks under its entries: a quotation in quotation marks, its place behind. */
export const annotated = (
  list: PrintedList,
  remarks: Map<string, Remark[]>,
  terms: ListTerms,
): PrintedList => ({
  ...list,
  entries: list.entries.map((entry) => {
    const of = remarks.get(entry.id);
    return of?.length ? { ...entry, annotations: of.map((r) => annotationOf(r, terms)) } : entry;
  }),
});

function annotationOf({ kind, text, locator }: Remark, terms: ListTerms): Annotation {
  const [open, close] = terms.quotes;
  const said = kind === 'quotation' ? `${open}${text}${close}` : text;
  return { kind, text: locator ? `${said} (${placeIn(terms, locator)})` : said };
}
