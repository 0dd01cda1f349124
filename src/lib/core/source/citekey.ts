import { fold, plain } from '../text';
import { yearOf } from './dates';
import { creatorsOf } from './fields';
import type { SourceRecord } from './schema';

/** What a citekey can be made of. */
export const CITEKEY_PARTS = [
  'author',
  'authors',
  'year',
  'short year',
  'word',
  'words',
  'container',
] as const;
export type CitekeyPart = (typeof CITEKEY_PARTS)[number];

export const CITEKEY_PART_LABELS: Record<CitekeyPart, string> = {
  author: 'first creator',
  authors: 'up to three creators',
  year: 'year',
  'short year': 'year, two digits',
  word: 'first word of the title',
  words: 'three words of the title',
  container: 'journal or book, initials',
};

/** Signs that may stand between the parts; all are safe in BibTeX, BibLaTeX and RIS. */
export const CITEKEY_BETWEEN = ['', '-', '_', ':', '.'] as const;

/** How citekeys are made: parts in order, and what stands between them. */
export interface CitekeyPattern {
  parts: CitekeyPart[];
  between: (typeof CITEKEY_BETWEEN)[number];
}

/** The usual: `ferreira2021salt`. */
export const USUAL_CITEKEY: CitekeyPattern = { parts: ['author', 'year', 'word'], between: '' };

/** Articles and small words at the beginning of titles that tell nothing. */
const STOP = new Set(
  'a an the on of in for and to der die das ein eine le la les un une de des du'.split(' '),
);

const ascii = (text: string) => fold(text).replace(/[^a-z0-9]/g, '');

const words = (text: string | undefined) =>
  fold(plain(text ?? ''))
    .split(' ')
    .map((w) => w.replace(/[^a-z0-9]/g, ''))
    .filter((w) => w.length > 1 && !STOP.has(w));

function partOf(part: CitekeyPart, record: SourceRecord): string {
  const names = () =>
    (creatorsOf(record)[0]?.names ?? [])
      .map((n) => ascii(n.literal ?? n.family ?? n.given ?? '').slice(0, 24))
      .filter(Boolean);
  const year = yearOf(record.issued);
  switch (part) {
    case 'author':
      return names()[0] ?? 'anon';
    case 'authors':
      return names().slice(0, 3).join('') || 'anon';
    case 'year':
      return year === undefined ? '' : String(Math.abs(year));
    case 'short year':
      return year === undefined ? '' : String(Math.abs(year) % 100).padStart(2, '0');
    case 'word':
      return (words(record.title)[0] ?? '').slice(0, 24);
    case 'words':
      return words(record.title).slice(0, 3).join('').slice(0, 48);
    case 'container':
      return words(record['container-title'])
        .map((w) => w[0])
        .join('')
        .slice(0, 12);
  }
}

/** The citekey a pattern gives a record, in ASCII, before it is looked at whether it is free; `source` when it gives nothing. */
export const citekeyStem = (record: SourceRecord, { parts, between }: CitekeyPattern): string =>
  parts
    .map((part) => partOf(part, record))
    .filter(Boolean)
    .join(between) || 'source';

/** The nth citekey of a stem: 0 is the stem itself, 1 has an `a` behind it, 27 `aa`. */
export const nthCitekey = (stem: string, n: number): string => (n === 0 ? stem : stem + suffix(n));

/** A citekey by a pattern. `taken` tells whether a key is in use; letters are appended until one is free. */
export function makeCitekey(
  record: SourceRecord,
  taken: (key: string) => boolean,
  pattern: CitekeyPattern = USUAL_CITEKEY,
): string {
  const stem = citekeyStem(record, pattern);
  for (let n = 0; ; n++) {
    const key = nthCitekey(stem, n);
    if (!taken(key)) return key;
  }
}

/** 1 is `a`, 26 `z`, 27 `aa`. */
function suffix(n: number): string {
  let letters = '';
  for (let left = n; left > 0; left = Math.floor((left - 1) / 26))
    letters = String.fromCharCode(97 + ((left - 1) % 26)) + letters;
  return letters;
}
