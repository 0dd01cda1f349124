import type { TextVariable } from '../../source';
import type { Check, Finding } from '../types';

/** A finding whose fix sets one field. */
const set = (
  check: string,
  pencil: Finding['pencil'],
  field: TextVariable,
  message: string,
  value: string,
): Finding => ({
  check,
  pencil,
  field,
  message,
  fix: { label: `Make it ${value}`, edit: { [field]: value } },
});

/** `pp. 7-24` prints its label twice; `7--24` is another format's dash. */
const pageForm: Check = ({ page }) => {
  if (!page) return [];
  const clean = page
    .replace(/^\s*(?:pp?|S|pages?|Seiten?)\.?\s+(?=\d)/i, '')
    .replace(/\s{0,3}(?:--+|[–—−])\s{0,3}/g, '-');
  return clean === page ? [] : [set('page-form', 'red', 'page', 'Pages with more than page numbers', clean)];
};

const RANGE = /^(\d{1,6})\s*[-–]\s*(\d{1,6})$/;

/**
 * A range that ends before it begins, or whose end leaves digits out. CSL shortens ranges itself, as the style says, and asks for both
 * ends whole (CSL 1.0.2 specification, "Page Ranges").
 */
const pageRange: Check = ({ page }) => {
  const m = page && RANGE.exec(page);
  if (!m) return [];
  const [, from, to] = m as unknown as [string, string, string];
  if (to.length < from.length) {
    const whole = from.slice(0, from.length - to.length) + to;
    return Number(whole) > Number(from)
      ? [set('page-short', 'blue', 'page', 'The last page leaves digits out', `${from}-${whole}`)]
      : [];
  }
  return Number(to) < Number(from)
    ? [set('page-reversed', 'red', 'page', 'The pages end before they begin', `${to}-${from}`)]
    : [];
};

/** A range with one end: `12-`. */
const pageOpen: Check = ({ page }) => {
  const m = page && /^\s*(\p{L}?\d{1,6})\s*[-–]+\s*$/u.exec(page);
  return m ? [set('page-open', 'red', 'page', 'The last page is missing behind the hyphen', m[1]!)] : [];
};

/** Letters that were read for digits: `l7`, `1O4`. */
const pageLetters: Check = ({ page }) => {
  if (!page || !/(?:\d[lIO]|[lIO]\d)/.test(page) || /^[A-Z]\d/.test(page)) return [];
  const clean = page.replace(/(?<=\d)[lI]|[lI](?=\d)/g, '1').replace(/(?<=\d)O|O(?=\d)/g, '0');
  return [set('page-letters', 'red', 'page', 'A letter stands for a digit in the pages', clean)];
};

/** How long a book is, where its pages should be. */
const pageLength: Check = ({ page, 'number-of-pages': length, type }) => {
  const m =
    page && /^(?:[ivxlc]+\s*[,+]\s*)?(\d{1,5})\s*(?:pp?|S|pages|Seiten|leaves)\.?$/i.exec(page.trim());
  return m && (type === 'book' || type === 'thesis' || type === 'report')
    ? [
        {
          check: 'page-length',
          pencil: 'red',
          field: 'page',
          message: 'This is how long it is, not where it stands',
          fix: {
            label: 'Keep it as the length',
            edit: { page: null, ...(length ? {} : { 'number-of-pages': m[1]! }) },
          },
        },
      ]
    : [];
};

const WORDS: [field: TextVariable, words: RegExp, name: string][] = [
  ['volume', /^(?:vol(?:ume|s)?|bd|band|jg|jahrgang|tome?|t)\.?\s*(?=[\divxlc])/i, 'Volume'],
  ['issue', /^(?:no|nos|nr|n[°º]|issue|number|heft|h|iss)\.?\s*(?=\d)/i, 'Issue'],
  ['number', /^(?:no|nr|n[°º])\.\s*(?=\d)/i, 'Number'],
  ['collection-number', /^(?:vol(?:ume)?|no|nr|bd|band|n[°º])\.?\s*(?=\d)/i, 'Number in series'],
  ['chapter-number', /^(?:ch(?:ap(?:ter)?)?|kap(?:itel)?)\.?\s*(?=[\divxlc])/i, 'Chapter number'],
];

/** A number that says what it is, which the style says too. */
const numberWords: Check = (record) =>
  WORDS.flatMap(([field, words, name]) => {
    const value = record[field];
    const clean = value?.trim().replace(words, '');
    return value && clean && clean !== value.trim()
      ? [set('number-words', 'red', field, `${name} says itself what it is`, clean)]
      : [];
  });

/** `12(3)` as a volume: the issue stands in it. */
const issueInVolume: Check = ({ volume, issue }) => {
  const m =
    volume &&
    /^(\d{1,5})\s*(?:\((\d{1,4}(?:[-/–]\d{1,4})?)\)|[,.:/]\s?(?:no\.?\s*)?(\d{1,4}))$/i.exec(volume.trim());
  if (!m) return [];
  const inside = (m[2] ?? m[3])!;
  if (issue && issue !== inside) return [];
  return [
    {
      check: 'volume-issue',
      pencil: 'red',
      field: 'volume',
      message: 'The issue stands in the volume',
      fix: { label: `Volume ${m[1]!}, issue ${inside}`, edit: { volume: m[1]!, issue: inside } },
    },
  ];
};

/** Few issues have a number beyond those of a year, and a low volume with one is often the other way round; common practice. */
const swapped: Check = ({ volume, issue, type }) =>
  type === 'article-journal' &&
  /^\d{2,3}$/.test(issue ?? '') &&
  /^\d{1,2}$/.test(volume ?? '') &&
  Number(issue) > 24 &&
  Number(volume) <= 12 &&
  Number(volume) > 0
    ? [
        {
          check: 'volume-swapped',
          pencil: 'blue',
          field: 'issue',
          message: 'Volume and issue may be swapped',
          fix: { label: 'Swap them', edit: { volume: issue, issue: volume } },
        },
      ]
    : [];

export const numberChecks: Check[] = [
  pageForm,
  pageRange,
  pageOpen,
  pageLetters,
  pageLength,
  numberWords,
  issueInVolume,
  swapped,
];
