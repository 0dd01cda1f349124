import type { CiteItem, PrintedCitation, PrintedList, PrintedText } from '../citing';
import { numbered, type MetInText } from '../drafting';
import type { CslItem } from '../source';

/** A citekey that names no work, and where it stands, in words for the person. */
export interface MissingKey {
  key: string;
  place: string;
}

/** What a manuscript prints: its citations by their ids, and the list of exactly what it cites. */
export interface SetManuscript {
  printed: ReadonlyMap<string, PrintedCitation>;
  list: PrintedList;
  missing: MissingKey[];
}

/** A citation as it was found in a manuscript; `place` says where, in words. Works are named by their citekeys. */
export type FoundInText =
  | (Extract<MetInText, { what: 'cite' }> & { cites: CiteItem[]; place: string })
  | Extract<MetInText, { what: 'footnote' }>;

/** Works of a library by their citekeys. */
export type Works = ReadonlyMap<string, CslItem>;

/**
 * Prints the citations of a manuscript in the order they are read. Those that name a work that is not there are left out, and
 * stay as they were written. `nocite`: what is listed without being cited; `*` is all there is.
 */
export function setManuscript(
  found: readonly FoundInText[],
  works: Works,
  printer: PrintedText,
  { notes, nocite = [] }: { notes: boolean; nocite?: readonly MissingKey[] },
): SetManuscript {
  const missing: MissingKey[] = [];
  const known = found.filter((one) => {
    if (one.what === 'footnote') return true;
    const unknown = one.cites.filter(({ id }) => !works.has(id));
    for (const { id } of unknown) missing.push({ key: id, place: one.place });
    return unknown.length === 0;
  });
  // All there are is wanting where there are none.
  for (const { key, place } of nocite)
    if (key === '*' ? works.size === 0 : !works.has(key)) missing.push({ key, place });
  const { citations } = numbered(known, { notes });
  const listed = new Set(citations.flatMap(({ cites }) => cites.map(({ id }) => id)));
  for (const { key } of nocite)
    for (const id of key === '*' ? works.keys() : [key]) if (works.has(id)) listed.add(id);
  const { citations: printed, list } = printer.set(
    [...listed].map((id) => works.get(id)!),
    citations,
  );
  return { printed: new Map(printed.map((one) => [one.id, one])), list, missing };
}

/** Where the list goes: a paragraph that says nothing else. */
export const LIST_MARK = '{#refs}';

/** The parts of a packed document by their names, as text. */
export type Parts = Readonly<Record<string, string>>;

/** What came of printing a packed manuscript: the parts that changed, new ones among them. */
export interface PrintedParts {
  changed: Record<string, string>;
  missing: MissingKey[];
  citations: number;
}

/** A manuscript that cannot be printed, with words for the person. */
export class UnreadableManuscript extends Error {}
