import type { Gender, Locale } from './locale';

/** A number in roman numerals, small letters; as it is from 10,000 on and below 1. */
export function roman(number: number): string {
  if (number < 1 || number >= 10_000) return String(number);
  const SIGNS: [number, string][] = [
    [1000, 'm'], [900, 'cm'], [500, 'd'], [400, 'cd'], [100, 'c'], [90, 'xc'], [50, 'l'], [40, 'xl'], [10, 'x'], [9, 'ix'],
    [5, 'v'], [4, 'iv'], [1, 'i'],
  ]; // prettier-ignore
  let text = '';
  let rest = number;
  for (const [value, sign] of SIGNS)
    while (rest >= value) {
      text += sign;
      rest -= value;
    }
  return text;
}

export type NumberForm = 'numeric' | 'ordinal' | 'long-ordinal' | 'roman';

/** A whole number in a form of a language. CSL 1.0.2, "Number". */
export function inForm(number: number, form: NumberForm, locale: Locale, gender?: Gender): string {
  if (form === 'roman') return roman(number);
  if (form === 'long-ordinal' && number >= 1 && number <= 10) {
    const term = locale.term(`long-ordinal-${String(number).padStart(2, '0')}`, 'long', false, gender);
    if (term !== undefined) return term;
  }
  if (form === 'numeric') return String(number);
  return `${number}${locale.ordinalSuffix(number, gender)}`;
}

/** What is longer than any number, list of pages, or one range of them, in characters: it is text, and prints as it stands. */
const LONGEST = 400;
const LONGEST_LIST = 1_000;
const LONGEST_RANGE = 80;

/** One number as CSL has it: digits, with a few letters before or behind. */
const ONE = String.raw`[\p{L}]{0,5}\d+[\p{L}]{0,5}`;
const NUMERIC = new RegExp(String.raw`^\s*${ONE}(?:\s*(?:[-\u2013,&/]|--)\s*${ONE})*\s*$`, 'u');
const ROMANS = /^[ivxlcdm]+$/i;

/** A number in small roman numerals, or a range of them, as front matter has for its pages; in capitals it is a name of a volume. */
const ROMAN = String.raw`(?=[ivxlcdm])m{0,3}(?:cm|cd|d?c{0,3})(?:xc|xl|l?x{0,3})(?:ix|iv|v?i{0,3})`;
const ROMAN_PAGES = new RegExp(String.raw`^\s*${ROMAN}(?:\s*[-\u2013]\s*${ROMAN})?\s*$`);

/** Whether a value is a number or several. CSL 1.0.2, "Choose", `is-numeric`. */
export const isNumeric = (value: string): boolean =>
  value.length <= LONGEST && (NUMERIC.test(value) || ROMAN_PAGES.test(value));

/** Whether a value of a number variable tells of several, so that its label is in the plural. CSL 1.0.2, "Label". */
export function isSeveral(value: string): boolean {
  if (value.length > LONGEST) return /\d ?[-\u2013,] ?\d/.test(value);
  const text = value.replace(/<[^>]*>/g, '').trim();
  const m = /^(\S.*?)\s*(?:,\s|[&\u2013]|--?|\band\b|\bund\b|\bet\b|\by\b)\s*(\S.*)$/u.exec(text);
  if (!m) return false;
  if (text.includes('\\-')) return false;
  const [, a, b] = m;
  return (/\d/.test(a!) || ROMANS.test(a!)) && (/\d/.test(b!) || ROMANS.test(b!) || /\d/.test(text));
}

/**
 * A value of a number variable as it prints in a form: its numbers in the form, a hyphen between them as an en dash,
 * commas and ampersands with their spaces. CSL 1.0.2, "Number". What is no number stays as it is.
 */
export function numberText(value: string, form: NumberForm, locale: Locale, gender?: Gender): string {
  const dash = locale.term('page-range-delimiter') ?? '\u2013';
  if (value.length > LONGEST) return value;
  if (!isNumeric(value)) return withLabels(value, form, locale, gender) ?? value;
  return value
    .trim()
    .replace(/(\d*)\s*(?:--|\u2013|-)\s*(\d*)/g, (_all, from: string, to: string) =>
      // "77-12" is one number: no range goes down.
      from.length === to.length && from > to ? `${from}-${to}` : from + dash + to,
    )
    .replace(/\s*,\s+/g, ', ')
    .replace(/\s*&\s*/g, ' & ')
    .replace(/[\p{L}]*\d+[\p{L}]*/gu, (one) => {
      if (form === 'numeric' || !/^\d+$/.test(one)) return one;
      return inForm(Number(one), form, locale, gender);
    });
}

/** Short labels a number may bring with it, and what they count. */
const LABELS: Record<string, string> = {
  'bk.': 'book', 'ch.': 'chapter', 'chap.': 'chapter', 'fig.': 'figure', 'fol.': 'folio', 'no.': 'issue', 'p.': 'page', 'pp.': 'page',
  'para.': 'paragraph', 'pt.': 'part', 'sec.': 'section', 'v.': 'verse', 'vol.': 'volume', 'vols.': 'volume',
}; // prettier-ignore

/** A value such as "7, p. 3-8", whose later numbers are of something else; nothing when it is not one. */
function withLabels(value: string, form: NumberForm, locale: Locale, gender?: Gender): string | undefined {
  const [own = '', ...labelled] = value.split(/,\s*(?=\p{Ll}{1,4}\.\s*\d)/u);
  if (labelled.length === 0 || !isNumeric(own)) return undefined;
  const out = [numberText(own, form, locale, gender)];
  for (const part of labelled) {
    const m = /^(\p{Ll}+\.)\s*(.+)$/u.exec(part);
    const term = m && LABELS[m[1]!];
    if (!term || !isNumeric(m[2]!)) return undefined;
    out.push(
      `${locale.term(term, 'short', isSeveral(m[2]!)) ?? m[1]!} ${numberText(m[2]!, 'numeric', locale)}`,
    );
  }
  return out.join(', ');
}

export type PageRangeFormat =
  'chicago' | 'chicago-15' | 'chicago-16' | 'expanded' | 'minimal' | 'minimal-two';

function lastOf(from: string, to: string, format: PageRangeFormat): string {
  // The end written in full first: "142-5" is 142 to 145.
  const full = to.length < from.length ? from.slice(0, from.length - to.length) + to : to;
  if (format === 'expanded') return full;
  const least = format === 'minimal-two' ? 2 : 1;
  const shorten = (keep: number) => {
    if (full.length !== from.length) return full;
    let same = 0;
    while (same < full.length - keep && full[same] === from[same]) same++;
    return full.slice(same);
  };
  if (format === 'minimal' || format === 'minimal-two') return shorten(least);
  // CSL 1.0.2, appendix V: the Chicago Manual's rule, 9.61 of the 16th edition.
  const start = Number(from);
  if (start < 100 || start % 100 === 0) return full;
  if (full.length !== from.length) return full;
  if (start % 100 < 10) return shorten(1);
  if (format !== 'chicago-16' && from.length === 4) {
    let different = 0;
    for (let i = 0; i < 4; i++) if (from[i] !== full[i]) different++;
    if (different >= 3) return full;
  }
  return shorten(2);
}

/**
 * A page or locator with its ranges as a style writes them. CSL 1.0.2, appendix V, "Page Range Formats". A range is of two
 * numbers with the same letters before, or none; a hyphen in anything else stays one, as does one behind a backslash.
 */
export function pageRanges(value: string, format: PageRangeFormat | undefined, delimiter: string): string {
  if (value.length > LONGEST_LIST || !/[-\u2013]/.test(value)) return value;
  return value
    .split(/(\s*[,;&]\s*|\s+and\s+)/)
    .map((part, i) => (i % 2 ? part : oneRange(part, format, delimiter)))
    .join('');
}

function oneRange(part: string, format: PageRangeFormat | undefined, delimiter: string): string {
  if (part.length > LONGEST_RANGE) return part;
  const m =
    /^(.*?)([\p{L}]*)(\d+)([\p{L}]*)\s*(?:--?|\u2013)\s*([\p{L}\d]*?)([\p{L}]*)(\d+)([\p{L}]*)$/u.exec(part);
  if (!m) {
    const romans = /^(\s*[ivxlcdm]+)\s*(?:--?|\u2013)\s*([ivxlcdm]+\s*)$/i.exec(part);
    if (romans) return `${romans[1]!}${delimiter}${romans[2]!}`;
    return part
      .replace(/\\-/g, '-')
      .replace(/(\d\p{L}*)\s+-\s+/gu, '$1-')
      .replace(/\s*\u2013\s*/g, delimiter);
  }
  const [, lead = '', p1 = '', n1 = '', s1 = '', lead2 = '', p2 = '', n2 = '', s2 = ''] = m;
  const before = lead + p1;
  const plainLead = /^[^\d]*$/.test(lead) && lead2 === '';
  const same = p1 === p2 && (plainLead || lead === lead2);
  if (lead2 !== '' && lead !== lead2) return part.replace(/\s*-\s*/, '-');
  if (!same)
    return p1 === '' && p2 === ''
      ? `${before}${n1}${s1}${delimiter}${n2}${s2}`
      : part.replace(/\s*-\s*/, '-');
  if (!format || s1 || s2) return `${before}${n1}${s1}${delimiter}${lead2}${p2}${n2}${s2}`;
  const last = lastOf(n1, n2, format);
  return `${before}${n1}${delimiter}${format === 'expanded' ? lead2 + p2 : ''}${last}`;
}
