import type { CslDate } from './schema';

const LAST_DAY = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

/** Year, month and day as far as given, when they are a date of the calendar. */
export function calendar(year: number, month?: number, day?: number): number[] | undefined {
  if (month === undefined) return [year];
  if (month < 1 || month > 12) return undefined;
  if (day === undefined) return [year, month];
  return day >= 1 && day <= (LAST_DAY[month - 1] ?? 0) ? [year, month, day] : undefined;
}

/** EDTF counts the year 1 BC as 0 (ISO 8601-1, 4.3.2); CSL has no year 0 and counts it as -1. */
export const yearFromEdtf = (year: number) => (year <= 0 ? year - 1 : year);
const yearToEdtf = (year: number) => (year < 0 ? year + 1 : year);

interface Point {
  /** One date, or the two years between which it lies. */
  parts: number[][];
  season?: number;
  circa: boolean;
  /** Whether the parts, season and circa say all that was written. */
  exact: boolean;
}

const number = (text: string | undefined) => (text === undefined ? undefined : Number(text));

function point(text: string): Point | undefined {
  const bare = text.replace(/[?~%]/g, '');
  const circa = bare !== text;
  const exact = !circa || text === `${bare}~`;
  const is = (parts: number[][] | undefined, said = true, season?: number): Point | undefined =>
    parts && { parts, circa, exact: exact && said, ...(season ? { season } : {}) };
  let m = /^(-?\d{4})-(2[1-9]|3\d|4[01])$/.exec(bare);
  if (m) {
    const season = Number(m[2]) - 20;
    return is([[yearFromEdtf(Number(m[1]))]], season <= 4, season <= 4 ? season : undefined);
  }
  m = /^(-?\d{4})(?:-(\d\d)(?:-(\d\d)(?:T[\d:.+Z-]*)?)?)?$/.exec(bare);
  if (m) {
    const parts = calendar(yearFromEdtf(Number(m[1])), number(m[2]), number(m[3]));
    return is(parts && [parts]);
  }
  m = /^(-?\d{4})(?:-(\d\d))?-[Xu]{2}(?:-[Xu]{2})?$/.exec(bare);
  if (m) {
    const parts = calendar(yearFromEdtf(Number(m[1])), number(m[2]));
    return is(parts && [parts], false);
  }
  m = /^(?=\d{1,3}[Xu]{1,3}$)(\d+)([Xu]+)$/.exec(bare);
  if (m && bare.length === 4) {
    const width = 10 ** m[2]!.length;
    return is([[Number(m[1]) * width], [(Number(m[1]) + 1) * width - 1]], false);
  }
  m = /^[Yy](-?\d{5,9})$/.exec(bare);
  return m ? is([[yearFromEdtf(Number(m[1]))]]) : undefined;
}

/**
 * A date in the Extended Date/Time Format to a CSL date; text in another form gives `undefined`.
 * Levels 0 and 1 of ISO 8601-2:2019, annex A (years before Christ and of more than four digits, seasons, `?` `~` `%`,
 * digits not known, open and unknown ends), and of level 2 the codes of quarters and half years, which CSL holds as their year.
 * Where CSL's parts do not say it all, the text is kept beside them as `edtf`.
 */
export function parseEdtf(text: string): CslDate | undefined {
  const t = text.trim();
  if (t.length > 60 || !/\d/.test(t)) return undefined;
  const ends = t.split('/');
  if (ends.length > 2) return undefined;
  if (ends.length === 1) {
    const p = point(t);
    if (!p) return undefined;
    return {
      'date-parts': p.parts,
      ...(p.season ? { season: p.season } : {}),
      ...(p.circa ? { circa: true } : {}),
      ...(p.exact ? {} : { edtf: t }),
    };
  }
  const [from, to] = ends.map((end) => (end === '' || end === '..' ? undefined : point(end)));
  if (ends.some((end, i) => end !== '' && end !== '..' && ![from, to][i])) return undefined;
  const first = from ?? to;
  const last = to ?? from;
  if (!first || !last) return undefined;
  const parts = from && to ? [first.parts[0]!, last.parts[last.parts.length - 1]!] : first.parts;
  const circa = Boolean(from?.circa || to?.circa);
  // A range whose last end alone is marked is how a range that is approximate as a whole is written.
  const exact = from?.exact && to?.exact && !from.season && !to.season && !from.circa;
  return { 'date-parts': parts, ...(circa ? { circa: true } : {}), ...(exact ? {} : { edtf: t }) };
}

const pad = (n: number, width: number) => String(Math.abs(n)).padStart(width, '0');

function isoPart([year = 0, ...rest]: number[]): string {
  const y = yearToEdtf(year);
  const sign = y < 0 ? '-' : '';
  const text = Math.abs(y) > 9999 ? `Y${sign}${Math.abs(y)}` : sign + pad(y, 4);
  return [text, ...rest.map((n) => pad(n, 2))].join('-');
}

/** A CSL date in the Extended Date/Time Format; `parseEdtf` reads it back to the same value. A date that is only text gives `undefined`. */
export function edtfOf(date: CslDate): string | undefined {
  if (date.edtf) return date.edtf;
  const parts = date['date-parts'];
  if (!parts) return undefined;
  const circa = date.circa ? '~' : '';
  if (date.season && parts.length === 1) return `${isoPart([parts[0]![0]!])}-${20 + date.season}${circa}`;
  return parts.map(isoPart).join('/') + circa;
}

/** Whether a date is a range without a last end, such as a series still appearing. */
export const isOpenRange = (date: CslDate): boolean => /\/(?:\.\.)?$/.test(date.edtf ?? '');
