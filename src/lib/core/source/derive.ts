import { fold, plain } from '../text';
import { nameText, shortName } from './creators';
import { yearOf } from './dates';
import { creatorsOf } from './fields';
import { addressKey, doiKey, firstIsbnKey } from './identifiers';
import type { SourceRecord } from './schema';

/** What the database searches, sorts and joins on; written from the record by `derive` alone. */
export interface Derived {
  type: string;
  title: string;
  titleKey: string;
  creatorKey: string;
  year: number | null;
  doi: string | null;
  isbn: string | null;
  addressKey: string | null;
  sortKey: string;
  /** Names of all creators, for the search index. */
  people: string;
}

/** The first creator in the order styles look for one, as a comparison form of the family or whole name. */
function creatorKeyOf(record: SourceRecord): string {
  const first = creatorsOf(record)[0]?.names[0];
  return first ? fold(first.literal ?? first.family ?? first.given ?? '') : '';
}

/** Derives the columns of a record. Pure: the same record gives the same columns. */
export function derive(record: SourceRecord): Derived {
  const title = plain(record.title ?? '');
  const year = yearOf(record.issued) ?? null;
  const creators = creatorsOf(record);
  const sortNames = (creators[0]?.names ?? []).map((n) =>
    fold(n.literal ?? [n.family, n.given].filter(Boolean).join(' ')),
  );
  return {
    type: record.type,
    title,
    titleKey: fold(title),
    creatorKey: creatorKeyOf(record),
    year,
    doi: doiKey(record.DOI) ?? null,
    isbn: firstIsbnKey(record.ISBN) ?? null,
    addressKey: addressKey(record.URL) ?? null,
    sortKey: [sortNames.join(' ') || fold(title), String(year ?? '9999').padStart(5, '0'), fold(title)].join(
      ' | ',
    ),
    people: creators.flatMap((c) => c.names.map(nameText)).join('; '),
  };
}

/** What sources are narrowed by beside their columns. */
export const FACETS = ['person', 'container', 'language'] as const;
export type Facet = (typeof FACETS)[number];

/** The values of each facet that a record has, each once: people of any role, what it appeared in, the language of its title. */
export function facetsOfRecord(record: SourceRecord): { kind: Facet; value: string }[] {
  const people = creatorsOf(record).flatMap((c) => c.names.map(nameText));
  // Of a language tag (RFC 5646) the language alone: `en-GB` is English.
  const language = String(record.language ?? '')
    .trim()
    .toLowerCase()
    .split(/[-_]/, 1)[0]!;
  const values: [Facet, string][] = [
    ...people.map((name): [Facet, string] => ['person', name]),
    ['container', plain(String(record['container-title'] ?? ''))],
    ['language', /^[a-z]{2,3}$/.test(language) ? language : ''],
  ];
  const seen = new Map(values.filter(([, value]) => value).map((pair) => [pair.join(' '), pair]));
  return [...seen.values()].map(([kind, value]) => ({ kind, value }));
}

/** A short name for a source: `Ferreira, Ng & Ó Súilleabháin 2021`, or its title where no creator is known. */
export function shortLabel(record: SourceRecord): string {
  const names = (creatorsOf(record)[0]?.names ?? []).map(shortName);
  const who =
    names.length === 0
      ? plain(record.title ?? '') || 'Untitled source'
      : names.length > 3
        ? `${names[0]} et al.`
        : names.length === 1
          ? names[0]!
          : `${names.slice(0, -1).join(', ')} & ${names[names.length - 1]}`;
  const year = yearOf(record.issued);
  return year === undefined ? who : `${who} ${year}`;
}

/** A source in one line: its short name and its title, said once where the title is its name. */
export function headline(record: SourceRecord): string {
  const title = plain(record.title ?? '');
  const label = shortLabel(record);
  const name = title || 'Untitled source';
  return label.startsWith(name) ? label : `${label}. ${name}`;
}
