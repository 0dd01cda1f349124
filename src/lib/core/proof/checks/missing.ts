import { creatorsOf, fieldLabel, type SourceRecord, type Variable } from '../../source';
import type { Check, Finding } from '../types';

const ask = (field: Variable, message: string): Finding => ({
  check: `${field}-missing`,
  pencil: 'blue',
  field,
  message,
});

/** Kinds that have no author of their own; common practice. */
const NOBODYS = new Set([
  'legislation',
  'legal_case',
  'bill',
  'treaty',
  'regulation',
  'periodical',
  'entry-dictionary',
  'collection',
  'standard',
  'event',
  'hearing',
]);
/** Papers that nobody signed: notices, account books, minutes, registers. */
const UNSIGNED =
  /\b(?:notices?|account\s?books?|ledgers?|minutes|registers?|inventor(?:y|ies)|lists?|advertisements?|obituar(?:y|ies)|almanacs?|logs?|rolls?)\b/i;

const unsigned = ({ type, title, genre }: SourceRecord) =>
  NOBODYS.has(type) ||
  ((type === 'manuscript' || type === 'article-newspaper' || type === 'document' || type === 'pamphlet') &&
    UNSIGNED.test(`${genre ?? ''} ${title ?? ''}`));

/** Nobody is named: right for some works, an oversight for most. */
export const creatorMissing: Check = (record) =>
  creatorsOf(record).length > 0 || unsigned(record) ? [] : [ask('author', 'No author')];

/** Without a date styles print "n.d." or leave the year out. */
export const dateMissing: Check = (record) =>
  record.issued || record.status ? [] : [ask('issued', 'No date')];

/** Parts that practically every style prints for a type; common practice. */
const EXPECTED: Partial<Record<string, Variable[]>> = {
  'article-journal': ['container-title', 'volume', 'page'],
  'article-newspaper': ['container-title'],
  'article-magazine': ['container-title'],
  chapter: ['container-title', 'publisher', 'page'],
  'entry-encyclopedia': ['container-title'],
  'paper-conference': ['container-title'],
  book: ['publisher'],
  thesis: ['publisher'],
  report: ['publisher'],
  patent: ['number'],
  standard: ['number'],
  legal_case: ['authority'],
  webpage: ['URL'],
  'post-weblog': ['URL'],
  post: ['URL'],
};

/** A field the reference will lack. Something else that tells the place (an article number, "in press") is enough. */
export const partsMissing: Check = (record) =>
  (EXPECTED[record.type] ?? [])
    .filter((field) => !record[field])
    .filter((field) => !(field === 'page' && (record.number || record['page-first'] || record.status)))
    .filter((field) => !(field === 'container-title' && record['event-title']))
    .filter((field) => !(field === 'volume' && (record.issue || record.status)))
    .map((field) => ({ ...ask(field, `${fieldLabel(field)} missing`), pencil: 'red' as const }));
