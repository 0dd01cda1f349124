import { fold } from '../text';
import { calendar, edtfOf, parseEdtf, yearFromEdtf } from './edtf';
import type { CslDate } from './schema';
import { MONTHS, spelledDate } from './spelled';

function calendarDate(text: string): number[] | undefined {
  const t = text.trim();
  let m = /^(-?\d{4,6})(?:[-/.](\d{1,2})(?:[-/.](\d{1,2}))?)?(?:T.*|\s+\d{1,2}:\d{2}.*)?$/.exec(t);
  if (m)
    return calendar(
      yearFromEdtf(Number(m[1])),
      m[2] ? Number(m[2]) : undefined,
      m[3] ? Number(m[3]) : undefined,
    );
  m = /^(\d{4})(\d{2})(\d{2})$/.exec(t);
  if (m) return calendar(Number(m[1]), Number(m[2]), Number(m[3]));
  const words = fold(t.replace(/(\d)(?:st|nd|rd|th)\b/gi, '$1')).split(' ');
  const month = words.map((w) => MONTHS.get(w)).find((n) => n !== undefined);
  const numbers = words.filter((w) => /^\d+$/.test(w));
  const year = numbers.find((n) => n.length === 4);
  const day = numbers.find((n) => n.length <= 2);
  if (month && year) return calendar(Number(year), month, day ? Number(day) : undefined);
  return undefined;
}

/**
 * A date as pages and files write it, to a CSL date, as far as it is really known: a year stays a year.
 * Reads EDTF (see `parseEdtf`), dates as they are written by hand (see `spelledDate`), ISO 8601 dates and date-times (the time is
 * dropped); of other text in which one year stands, the year.
 * Day and month as two bare numbers (`03/04/2021`) cannot be told apart: only the year is taken.
 * Text in which no date is found gives `undefined`.
 */
export function parseDate(text: string): CslDate | undefined {
  let t = text.trim();
  if (t === '' || t.length > 200) return undefined;
  const plain = parseEdtf(t) ?? spelledDate(t);
  if (plain) return plain;
  const circa = /^(?:c\.|ca\.?|circa)\s*/i.test(t) || /[~?%]$/.test(t);
  t = t.replace(/^(?:c\.|ca\.?|circa)\s*/i, '').replace(/[~?%]$/, '');
  const done = (date: CslDate): CslDate => (circa ? { ...date, circa: true } : date);
  const whole = calendarDate(t);
  if (whole) return done({ 'date-parts': [whole] });
  const range = /^(.+?)\s*(?:\/|–|—|\s-\s|(?<=\d{4})-(?=\d{4}))\s*(.+)$/.exec(t);
  if (range) {
    const [from, to] = [calendarDate(range[1] ?? ''), calendarDate(range[2] ?? '')];
    if (from && to && from[0]! <= to[0]!) return done({ 'date-parts': [from, to] });
  }
  const numeric = /^\d{1,2}[./-]\d{1,2}[./-](\d{4})$/.exec(t);
  if (numeric) return done({ 'date-parts': [[Number(numeric[1])]] });
  const years = t.match(/(?<!\d)(1[0-9]{3}|20[0-9]{2})(?!\d)/g) ?? [];
  if (years.length === 1 && t.length <= 60) return done({ 'date-parts': [[Number(years[0])]] });
  return undefined;
}

/**
 * Why a date that was typed or stands in a file cannot be taken whole, in words: a day or month that is not in the
 * calendar, or two bare numbers of which either may be the day. Nothing when it can, or is no date in numbers at all.
 */
export function dateProblem(text: string): string | undefined {
  const t = text.trim().replace(/[~?%]$/, '');
  if (t === '' || t.length > 200 || parseEdtf(t) || spelledDate(t)) return undefined;
  const iso = /^(-?\d{4})[-/.](\d{1,2})(?:[-/.](\d{1,2}))?$/.exec(t) ?? /^(\d{4})(\d{2})(\d{2})$/.exec(t);
  if (iso) {
    const [year, month, day] = iso.slice(1).map((n) => (n === undefined ? undefined : Number(n)));
    if (calendar(year!, month, day)) return undefined;
    return month! < 1 || month! > 12
      ? `There is no month ${month}. Write the year, the month and the day, as in 2021-11-03.`
      : `Month ${month} has no day ${day}.`;
  }
  if (/^\d{1,2}[./-]\d{1,2}[./-]\d{2,4}$/.test(t))
    return 'Which is the day, and which the month? Write 2021-11-03, or 3 November 2021.';
  const words = fold(t.replace(/(\d)(?:st|nd|rd|th)\b/gi, '$1')).split(' ');
  const month = words.map((w) => MONTHS.get(w)).find((n) => n !== undefined);
  const day = words.find((w) => /^\d{1,2}$/.test(w));
  const year = words.find((w) => /^\d{4}$/.test(w));
  return words.length === 3 && month && day && year && !calendar(Number(year), month, Number(day))
    ? `${t
        .replace(/\d+/, '')
        .replace(/\d{4}/, '')
        .replace(/[,\s]+/g, ' ')
        .trim()} has no day ${Number(day)}.`
    : undefined;
}

/**
 * What a person typed as a date: parsed when it can be, kept as `literal` text when not, and never cut to the part that
 * was understood; empty gives `undefined`.
 */
export function typedDate(text: string): CslDate | undefined {
  const t = text.trim();
  if (t === '') return undefined;
  const edtf = parseEdtf(t);
  if (edtf) return edtf;
  if (dateProblem(t)) return { literal: t };
  const spelled = spelledDate(t);
  if (spelled) return spelled;
  // In numbers, and a year with the letter that tells it from others of its author.
  const parts = calendarDate(t.replace(/^(\d{4})[a-z]$/, '$1'));
  return parts && !/\p{L}{2}/u.test(t) ? { 'date-parts': [parts] } : { literal: t };
}

/**
 * A CSL date as EDTF (ISO 8601-2) where it has one: `2021-11`, `1540/1610`, `1998-21` for spring, `1700~` for circa,
 * `1998/..` for one that goes on; a literal date as its text. `parseDate` reads it back to the same value.
 */
export function dateText(date: CslDate | undefined): string {
  return date ? (edtfOf(date) ?? date.literal ?? '') : '';
}

/** The year of a date, or `undefined` where it has none. */
export function yearOf(date: CslDate | undefined): number | undefined {
  return date?.['date-parts']?.[0]?.[0];
}

/** How much of a date is known, for choosing the fuller of two: 0 nothing, 1 year, 2 month or season, 3 day. */
export function precisionOf(date: CslDate | undefined): number {
  const first = date?.['date-parts']?.[0];
  return first ? Math.max(first.length, date?.season ? 2 : 0) : 0;
}

/** Whether two dates agree as far as both are known. */
export function datesAgree(a: CslDate, b: CslDate): boolean {
  const [x, y] = [a['date-parts']?.[0] ?? [], b['date-parts']?.[0] ?? []];
  return x.length > 0 && y.length > 0 && x.every((n, i) => y[i] === undefined || y[i] === n);
}
