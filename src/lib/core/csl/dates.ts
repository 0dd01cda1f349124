import type { DateParts, PlainDate } from './item';
import type { Locale } from './locale';
import { inForm } from './numbers';
import { affixed, isEmpty, type Look, type Node } from './pieces';
import { inCase, type TextCase } from './case';

export type DatePartName = 'year' | 'month' | 'day';

/** A part of a date as a style or a locale describes it. CSL 1.0.2, "Date-part". */
export interface DatePart {
  name: DatePartName;
  form?: string;
  prefix?: string;
  suffix?: string;
  look?: Look;
  textCase?: TextCase;
  stripPeriods: boolean;
  rangeDelimiter: string;
}

const EM = '\u2013';
export const RANGE_DELIMITER = EM;

const noPeriods = (text: string) => text.replace(/\./g, '');

function yearText(year: number, part: DatePart, locale: Locale): string {
  if (part.form === 'short') return String(Math.abs(year) % 100).padStart(2, '0');
  if (year < 0) return `${-year}${locale.term('bc') ?? 'BC'}`;
  // Common practice: later years say by themselves which era they are of.
  if (year < 500 && year > 0) return `${year}${locale.term('ad') ?? 'AD'}`;
  return String(year);
}

function monthText(date: DateParts, part: DatePart, locale: Locale): string {
  const { month, season } = date;
  if (season) return locale.term(`season-0${season}`) ?? '';
  if (!month) return '';
  if (part.form === 'numeric') return String(month);
  const two = String(month).padStart(2, '0');
  if (part.form === 'numeric-leading-zeros') return two;
  return locale.term(`month-${two}`, part.form === 'short' ? 'short' : 'long') ?? String(month);
}

function dayText(date: DateParts, part: DatePart, locale: Locale): string {
  const { day, month } = date;
  if (!day) return '';
  if (part.form === 'numeric-leading-zeros') return String(day).padStart(2, '0');
  if (part.form === 'ordinal' && (!locale.limitDayOrdinals || day === 1))
    return inForm(
      day,
      'ordinal',
      locale,
      month ? locale.genderOf(`month-${String(month).padStart(2, '0')}`) : undefined,
    );
  return String(day);
}

/** A part of a date in words, or nothing when the date does not tell it. */
export function partNode(date: DateParts, part: DatePart, locale: Locale): Node | undefined {
  let text =
    part.name === 'year'
      ? date.year || date.year < 0
        ? yearText(date.year, part, locale)
        : ''
      : part.name === 'month'
        ? monthText(date, part, locale)
        : dayText(date, part, locale);
  if (text === '') return undefined;
  if (part.stripPeriods) text = noPeriods(text);
  const kids = inCase([text], part.textCase, locale.lang);
  if (!part.look && part.name !== 'year') return kids[0];
  return {
    kids,
    ...(part.look ? { look: part.look } : {}),
    ...(part.name === 'year' ? { kind: 'year' as const } : {}),
  };
}

const tells = (date: DateParts, name: DatePartName) =>
  name === 'year' ? true : name === 'month' ? Boolean(date.month ?? date.season) : Boolean(date.day);

/** The largest part in which two dates differ. */
function differsIn(a: DateParts, b: DateParts): DatePartName | undefined {
  if (a.year !== b.year) return 'year';
  if (a.month !== b.month || a.season !== b.season) return 'month';
  if (a.day !== b.day) return 'day';
  return undefined;
}

/**
 * Whether what stands beside a month is a word for it, written together with it as in “3月”, which a season in its place does
 * not take. Common practice.
 */
const isOfMonth = (date: DateParts, part: DatePart, beside: string | undefined): boolean =>
  part.name === 'month' && date.season !== undefined && /^\p{L}+$/u.test(beside ?? '');

const SIZE: Record<DatePartName, number> = { day: 1, month: 2, year: 3 };

/**
 * A date in the parts and order of a style; CSL 1.0.2, "Date" and "Date Ranges": of a range, the parts up to the largest
 * that differs print twice, with that part's range delimiter between.
 */
export function dateNodes(
  date: PlainDate,
  parts: DatePart[],
  delimiter: string | undefined,
  locale: Locale,
): Node[] {
  const { from, to, open } = date;
  if (!from) return [];
  const one = (of: DateParts, some: DatePart[], trim: { first?: boolean; last?: boolean } = {}): Node[] => {
    const printed: { part: DatePart; node: Node }[] = [];
    for (const part of some) {
      const node = partNode(of, part, locale);
      if (node !== undefined && !isEmpty(node)) printed.push({ part, node });
    }
    return printed.map(({ part, node }, i) => {
      const around = (text: string | undefined) => (isOfMonth(of, part, text) ? undefined : text);
      return affixed(
        node,
        trim.first && i === 0 ? undefined : around(part.prefix),
        trim.last && i === printed.length - 1 ? undefined : around(part.suffix),
      );
    });
  };
  const between = (nodes: Node[]): Node[] => {
    if (!delimiter) return nodes;
    return nodes.flatMap((n, i) => (i ? [delimiter, n] : [n]));
  };
  if (open) return [...between(one(from, parts, { last: true })), EM];
  if (!to) return between(one(from, parts));
  const differs = differsIn(restricted(from, parts), restricted(to, parts));
  if (!differs) return between(one(from, parts));
  const size = SIZE[differs];
  const isTwice = (p: DatePart) => SIZE[p.name] <= size;
  const first = parts.findIndex((p) => isTwice(p) && (tells(from, p.name) || tells(to, p.name)));
  const last = parts.findLastIndex((p) => isTwice(p) && (tells(from, p.name) || tells(to, p.name)));
  if (first < 0) return between(one(from, parts));
  const dash = parts.find((p) => p.name === differs)?.rangeDelimiter ?? EM;
  const before = one(from, parts.slice(0, first));
  const middle = parts.slice(first, last + 1);
  const after = one(to, parts.slice(last + 1));
  const start = one(from, middle, { last: true });
  const end = one(to, middle, { first: true });
  const range: Node = { kids: [...between(start), dash, ...between(end)] };
  return between([...before, range, ...after]);
}

/** A date without the parts a style does not print. */
function restricted(date: DateParts, parts: DatePart[]): DateParts {
  const has = (name: DatePartName) => parts.some((p) => p.name === name);
  const out: DateParts = { year: has('year') ? date.year : 0 };
  if (has('month') || date.season) {
    if (date.month && has('month')) out.month = date.month;
    if (date.season && has('month')) out.season = date.season;
  }
  if (has('day') && date.day) out.day = date.day;
  return out;
}

const fixed = (n: number) => String(n).padStart(2, '0');

/** A date as a key that sorts, of one length whatever it tells; one in words sorts as one that is missing. CSL 1.0.2, "Sorting". */
export function dateKey(
  date: PlainDate | undefined,
  has: (name: DatePartName) => boolean = () => true,
): string {
  if (!date?.from) return '';
  const one = (d: DateParts) => {
    const year = (d.year + 20_000).toString().padStart(5, '0');
    return year + fixed(has('month') ? (d.month ?? 0) : 0) + fixed(has('day') ? (d.day ?? 0) : 0);
  };
  return one(date.from) + (date.to ? `-${one(date.to)}` : '');
}
