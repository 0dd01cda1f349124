import { creatorsOf, fieldLabel, type Variable } from '../../source';
import type { Check, Finding } from '../types';

const ask = (field: Variable, message: string): Finding => ({
  check: `${field}-missing`,
  pencil: 'blue',
  field,
  message,
});

/** Nobody is named: right for some works, an oversight for most. */
export const creatorMissing: Check = (record) => {
  if (creatorsOf(record).length > 0) return [];
  const fine = [
    'legislation',
    'legal_case',
    'bill',
    'treaty',
    'periodical',
    'entry-dictionary',
    'collection',
  ];
  return fine.includes(record.type) ? [] : [ask('author', 'No author')];
};

/** Without a date styles print "n.d." or leave the year out. */
export const dateMissing: Check = (record) =>
  record.issued || record.status ? [] : [ask('issued', 'No date')];

/** Parts that practically every style prints for a type; common practice. */
const EXPECTED: Partial<Record<string, Variable[]>> = {
  'article-journal': ['container-title', 'volume', 'page'],
  'article-newspaper': ['container-title'],
  'article-magazine': ['container-title'],
  chapter: ['container-title', 'publisher', 'page'],
  'paper-conference': ['container-title'],
  book: ['publisher'],
  thesis: ['publisher'],
  report: ['publisher'],
  webpage: ['URL'],
  'post-weblog': ['URL'],
};

/** A field the reference will lack. Something else that tells the place (an article number, "in press") is enough. */
export const partsMissing: Check = (record) =>
  (EXPECTED[record.type] ?? [])
    .filter((field) => !record[field])
    .filter((field) => !(field === 'page' && (record.number || record['page-first'] || record.status)))
    .filter((field) => !(field === 'container-title' && record['event-title']))
    .filter((field) => !(field === 'volume' && (record.issue || record.status)))
    .map((field) => ({ ...ask(field, `${fieldLabel(field)} missing`), pencil: 'red' as const }));
