import * as source from '../source';

/**
 * What is printed from: a record as CSL-JSON, read variable by variable. The reading is lenient, as records from elsewhere
 * are: numbers as text, dates in a line of text, names with their particles in one string.
 */

export interface DateValue {
  'date-parts'?: (number | string)[][];
  season?: number | string;
  circa?: boolean | number | string;
  literal?: string;
  raw?: string;
  edtf?: string;
}

export interface NameValue {
  family?: string;
  given?: string;
  'dropping-particle'?: string;
  'non-dropping-particle'?: string;
  suffix?: string;
  'comma-suffix'?: boolean | number | string;
  'static-ordering'?: boolean | number | string;
  'parse-names'?: boolean | number | string;
  literal?: string;
  isInstitution?: boolean | number | string;
}

export interface Item {
  id: string;
  type: string;
  language?: string;
  [variable: string]: unknown;
}

/** Those of records; "container" is a date of older styles. */
export const NAME_VARIABLES = new Set<string>(source.NAME_VARIABLES);
export const DATE_VARIABLES = new Set<string>([...source.DATE_VARIABLES, 'container']);
/** Those of records, and those that belong to a citation. */
export const NUMBER_VARIABLES = new Set<string>([
  ...source.NUMBER_VARIABLES,
  'citation-number',
  'first-reference-note-number',
  'locator',
]);

/** Older and common names of variables. */
const ALIASES = new Map([
  ['title-short', 'shortTitle'],
  ['container-title-short', 'journalAbbreviation'],
  ['event', 'event-title'],
  ['event-title', 'event'],
]);

const asText = (value: unknown): string =>
  typeof value === 'string' ? value : typeof value === 'number' ? String(value) : '';

/** A value as text; empty when there is none. */
export function textIn(item: Item, variable: string): string {
  const text = asText(item[variable]);
  if (text !== '') return text;
  const other = ALIASES.get(variable);
  if (other !== undefined) return asText(item[other]);
  if (variable === 'page-first') {
    const page = textIn(item, 'page');
    return /^[^\s,&\u2013-]+/.exec(page.trim())?.[0] ?? '';
  }
  return '';
}

const NO_NAMES: NameValue[] = [];

/** The names of a role, each with its particles apart; those without any text are left out. */
export function namesIn(item: Item, variable: string): NameValue[] {
  const value = item[variable];
  if (!Array.isArray(value) || value.length === 0) return NO_NAMES;
  const known = parsedNames.get(value);
  if (known) return known;
  const parsed = (value as NameValue[]).filter(hasText).map(withParticles);
  parsedNames.set(value, parsed);
  return parsed;
}

/** Names and dates are read once for each record. */
const parsedNames = new WeakMap<object, NameValue[]>();
const parsedDates = new WeakMap<object, PlainDate | 'none'>();

const hasText = (name: NameValue) => Boolean(name && (name.family || name.given || name.literal));

const isOff = (value: unknown) => value === false || value === 0 || value === '0' || value === 'false';
export const isOn = (value: unknown) => Boolean(value) && !isOff(value);

/** Small words before a family name, with what joins them to it: "van der ", "d’", "v.d. ", "in ’t ". */
const PARTICLES =
  /^((?:[\u2019'`]?\p{Ll}[\p{Ll}.\u2019'`]*[\s\u00a0]+)*(?:[\u2019'`]?\p{Ll}[\p{Ll}.]*[\s\u00a0]+|\p{Ll}{1,3}[\u2019'`-]))(?=\S)(.*)$/su;

/** How a family name begins that may hold a particle, and what a given name has that may hold a particle or a suffix. */
const MAY_HAVE_PARTS = /^[\p{Ll}\u2019'`"]/u;
const MAY_HIDE_PARTS = /,|\s\p{Ll}/u;

/** A word that stands small behind a given name. */
const SMALL_WORD = /^\p{Ll}[\p{Ll}\u2019'`-]*$/u;

/** Where the small words behind a given name begin; its length if there are none. At least one word is the name's own. */
function endOfNames(given: string): number {
  let end = given.length;
  for (const gap of [...given.matchAll(/\s+/g)].reverse()) {
    if (gap.index === 0 || !SMALL_WORD.test(given.slice(gap.index + gap[0].length, end))) break;
    end = gap.index;
  }
  return end;
}

/**
 * A name whose particles stand in its other parts, taken apart: small words before the family name do not drop, small words
 * behind the given name drop; what is behind a comma there is a suffix, behind ", !" one that wants its comma. Common
 * practice of records that know only two parts; nothing is changed where a part is given.
 */
export function withParticles(name: NameValue): NameValue {
  if (!MAY_HAVE_PARTS.test(name.family ?? '') && !MAY_HIDE_PARTS.test(name.given ?? '')) return name;
  if (name.literal !== undefined || isOff(name['parse-names'])) return name;
  let { family, given } = name;
  let dropping = name['dropping-particle'];
  let kept = name['non-dropping-particle'];
  let suffix = name.suffix;
  let comma = name['comma-suffix'];
  if (family && !kept) {
    if (/^".*"$/.test(family)) family = family.slice(1, -1);
    else {
      const m = PARTICLES.exec(family);
      if (m && m[2]) {
        kept = m[1]!.trimEnd();
        if (/[\u2019'`-]$/.test(kept)) kept = m[1]!;
        family = m[2];
      }
    }
  }
  if (given && family) {
    const m = /^(.*?),\s*(!?)\s*(.+)$/s.exec(given);
    if (m && suffix === undefined) {
      const words = m[3]!.trim();
      if (/^\p{Ll}[\p{Ll}\u2019'`\s]*$/u.test(words) && !/^(?:jr|sr|i+|iv|v)\.?$/i.test(words)) {
        dropping ??= words;
        given = `${m[1]!},`;
      } else {
        suffix = words;
        given = m[1]!;
        if (m[2]) comma = true;
      }
    }
    if (!dropping) {
      const before = endOfNames(given);
      if (before < given.length) {
        dropping = given.slice(before).trim();
        given = given.slice(0, before);
      }
    }
  }
  if (family === name.family && given === name.given) return name;
  return {
    ...name,
    ...(family !== undefined ? { family } : {}),
    ...(given !== undefined ? { given } : {}),
    ...(dropping ? { 'dropping-particle': dropping } : {}),
    ...(kept ? { 'non-dropping-particle': kept } : {}),
    ...(suffix ? { suffix } : {}),
    ...(comma !== undefined ? { 'comma-suffix': comma } : {}),
  };
}

/** A date of a record, in numbers; `year` 0 when there is none. */
export interface DateParts {
  year: number;
  month?: number;
  day?: number;
  /** 1 to 4. */
  season?: number;
}

export interface PlainDate {
  from?: DateParts;
  to?: DateParts;
  /** The range goes on. */
  open?: boolean;
  literal?: string;
  uncertain: boolean;
}

function partsOf(given: (number | string)[] | undefined): DateParts | undefined {
  if (!given) return undefined;
  const [y, m, d] = given.map((part) => (part === '' || part === null ? NaN : Number(part)));
  if (y === undefined || Number.isNaN(y)) return undefined;
  const parts: DateParts = { year: y };
  if (m !== undefined && !Number.isNaN(m) && m !== 0) {
    if (m >= 1 && m <= 12) parts.month = m;
    // ISO 8601-2 (EDTF): 21 to 24 are the seasons; 13 to 20 are found in older records.
    else if (m >= 13 && m <= 24) parts.season = ((m - 13) % 4) + 1;
  }
  if (parts.month && d !== undefined && !Number.isNaN(d) && d >= 1 && d <= 31) parts.day = d;
  return parts;
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const SEASONS: Record<string, number> = { spr: 1, sum: 2, aut: 3, fal: 3, win: 4 };

function partsOfLine(text: string): DateParts | undefined {
  const iso = /^(-?\d{1,4})(?:-(\d{1,2})(?:-(\d{1,2}))?)?$/.exec(text);
  if (iso) return partsOf(iso.slice(1).filter((p) => p !== undefined));
  const slashes = /^(\d{1,2})\/(?:(\d{1,2})\/)?(\d{4})$/.exec(text);
  if (slashes) return partsOf([slashes[3]!, slashes[1]!, ...(slashes[2] ? [slashes[2]] : [])]);
  const year =
    /(?:^|[\s,])(\d{3,4})(\s*(?:bce?|ad|ce))?\.?$/i.exec(text) ?? /^(\d{3,4})(\s*(?:bc|ad))?\b/i.exec(text);
  if (!year) return undefined;
  const parts: DateParts = { year: /bc/i.test(year[2] ?? '') ? -Number(year[1]) : Number(year[1]) };
  const rest = text.replace(year[1]!, ' ').toLowerCase();
  for (const word of rest.match(/\p{L}+/gu) ?? []) {
    const month = MONTHS.indexOf(word.slice(0, 3));
    if (month >= 0) parts.month = month + 1;
    else if (SEASONS[word.slice(0, 3)]) parts.season = SEASONS[word.slice(0, 3)]!;
    else if (!/^(?:bce?|ad|ce|ca|st|nd|rd|th|of)$/.test(word)) return undefined;
  }
  const day = /\b(\d{1,2})\b/.exec(rest);
  if (day && parts.month) parts.day = Number(day[1]);
  return parts;
}

/** What is longer than any date, in characters: it is words. */
const LONGEST_DATE = 200;

/** A line of text as a date, as far as it is one; else its words. */
function dateOfLine(raw: string): PlainDate {
  if (raw.length > LONGEST_DATE) return { literal: raw, uncertain: false };
  const uncertain = /\?|\bca?\.?\s|\bcirca\b/i.test(raw);
  const text = raw.replace(/[?]|\bca?\.\s*|\bcirca\s*/gi, '').trim();
  const range = /^(.+?)\s*(?:\/|--|\u2013|\s-\s|(?<=\d{4})-(?=\d{4}))\s*(.+)$/.exec(text);
  if (range) {
    const to = partsOfLine(range[2]!);
    const from = partsOfLine(range[1]!) ?? (to ? partsOfLine(`${range[1]!} ${to.year}`) : undefined);
    if (from && to) return { from, to, uncertain };
  }
  const whole = partsOfLine(text);
  if (whole) return { from: whole, uncertain };
  return { literal: raw, uncertain };
}

/** A date variable in numbers, or nothing. */
export function dateIn(item: Item, variable: string): PlainDate | undefined {
  const value = item[variable] as DateValue | string | undefined;
  if (!value) return undefined;
  if (typeof value === 'string') return dateOfLine(value);
  const known = parsedDates.get(value);
  if (known) return known === 'none' ? undefined : known;
  const parsed = readDate(value);
  parsedDates.set(value, parsed ?? 'none');
  return parsed;
}

function readDate(value: DateValue): PlainDate | undefined {
  const uncertain = isOn(value.circa);
  const parts = value['date-parts'];
  if (Array.isArray(parts) && parts.length) {
    const from = partsOf(parts[0]);
    if (from) {
      const season = Number(value.season);
      if (season >= 1 && season <= 4 && !from.month) from.season = season;
      const second = parts[1];
      const open = second !== undefined && second.length === 1 && Number(second[0]) === 0;
      const to = open ? undefined : partsOf(second);
      return { from, ...(to ? { to } : {}), ...(open ? { open } : {}), uncertain };
    }
  }
  if (value.raw) {
    const of = dateOfLine(value.raw);
    return { ...of, uncertain: of.uncertain || uncertain };
  }
  if (value.literal) return { literal: value.literal, uncertain };
  if (value.season !== undefined && value.season !== '' && Number.isNaN(Number(value.season)))
    return { literal: String(value.season), uncertain };
  return undefined;
}
