import { fold } from '../text';
import { parseEdtf } from './edtf';
import type { CslDate } from './schema';

const named = (...lists: string[]): Map<string, number> =>
  new Map(lists.flatMap((names, i) => names.split(' ').map((name) => [name, i + 1] as const)));

/** Names of months, folded, in English, German and French, with their abbreviations: those that mean nothing else in a sentence. */
export const MONTHS = named(
  'january januar janvier jan janv',
  'february februar fevrier feb fevr',
  'march marz maerz mars mar',
  'april avril apr avr',
  'may mai',
  'june juni juin jun',
  'july juli juillet jul juil',
  'august aout aug',
  'september septembre sep sept',
  'october oktober octobre oct okt',
  'november novembre nov',
  'december dezember decembre dec dez',
);
/** Those of further languages (CLDR), some of which are words of others: read where nothing else is written. */
const FURTHER_MONTHS = named(
  'enero ene gennaio gen janeiro januari',
  'febrero febbraio fevereiro fev februari',
  'marzo marco maart mrt',
  'abril abr aprile',
  'mayo maggio maio mei maj',
  'junio giugno giu junho',
  'julio luglio lug julho',
  'agosto ago augustus augusti',
  'septiembre settembre set setembro',
  'octubre ottobre ott outubro out',
  'noviembre novembro',
  'diciembre dic dicembre dezembro',
);
/** Names of seasons, folded; 1 is spring. */
const SEASONS = named(
  'spring fruhling fruhjahr printemps primavera lente',
  'summer sommer ete verano estate verao zomer',
  'autumn fall herbst automne otono autunno outono herfst',
  'winter hiver invierno inverno',
);
const ERAS = new Map([
  ...['bc', 'bce', 'v chr', 'a c', 'av j c', 'avant j c'].map((era) => [era, -1] as const),
  ...['ad', 'ce', 'n chr', 'd c', 'ap j c', 'apres j c'].map((era) => [era, 1] as const),
]);
const WEEKDAYS = new Set(
  (
    'monday mon tuesday tue tues wednesday wed thursday thu thur thurs friday fri saturday sat sunday sun ' +
    'montag dienstag mittwoch donnerstag freitag samstag sonnabend sonntag ' +
    'lundi mardi mercredi jeudi vendredi samedi dimanche'
  ).split(' '),
);
const FILLERS = new Set('of the de del den der le la el am im en year jahr'.split(' '));

const CIRCA =
  /^(?:c\.?|ca\.?|circa|cca\.?|about|around|approx\.?|approximately|um|etwa|vers|hacia|verso|rond)\s+(?=\S)|^ca?\.?(?=\d{4})/i;
const UNTIL =
  /^(?:before|until|up to|by|till|vor|bis|avant|jusqu['’]en|antes de|hasta|prima del|voor|tot)\s+/i;
const SINCE =
  /^(?:after|since|from|nach|seit|ab|apr[eè]s|depuis|despu[eé]s de|desde|dopo|dal|na|sinds|vanaf)\s+/i;
const GOES_ON = /^(?:|present|the present|now|today|ongoing|heute|aujourd['’]hui|presente|hoy|oggi|heden)$/i;
/** What stands between the ends of a range. */
const BETWEEN = /\s*(?:[–—‒]|\/|\s-\s|-|\s(?:to|bis|until|through|hasta)\s)\s*/i;

/** The parts of one date that were written, those that were not left open. */
interface Parts {
  year?: number;
  month?: number;
  day?: number;
  season?: number;
  quarter?: number;
}

/** One date in words, the order of its parts free where it is plain which is which; nothing where a word is left over. */
function partsOf(text: string): Parts | undefined {
  const cjk = /^(\d{1,4})\s*[年년]\s*(?:(\d{1,2})\s*[月월]\s*(?:(\d{1,2})\s*[日일])?)?$/u.exec(text.trim());
  if (cjk) {
    const [year, month, day] = cjk.slice(1).map((n) => (n ? Number(n) : undefined));
    return { ...(year ? { year } : {}), ...(month ? { month } : {}), ...(day ? { day } : {}) };
  }
  // A month and a year as numbers: which is which is plain.
  const short = /^(0?[1-9]|1[0-2])[./](\d{4})$/.exec(text.trim());
  if (short) return { year: Number(short[2]), month: Number(short[1]) };
  let rest = fold(text.replace(/(\d)(?:st|nd|rd|th|er|º|ª|°)(?!\p{L})/giu, '$1'));
  let era = 0;
  for (const [words, sign] of ERAS)
    if (new RegExp(`(?:^|\\s|\\d)${words}$|^${words}\\s`).test(rest)) {
      era = sign;
      rest = rest.replace(new RegExp(`\\s?${words}$|^${words}\\s`), '').trim();
      break;
    }
  const parts: Parts = {};
  const put = (key: keyof Parts, value: number) => {
    if (parts[key] !== undefined) return false;
    parts[key] = value;
    return true;
  };
  for (const word of rest.split(' ').filter(Boolean)) {
    if (FILLERS.has(word) || WEEKDAYS.has(word)) continue;
    const month = MONTHS.get(word) ?? FURTHER_MONTHS.get(word);
    const season = SEASONS.get(word);
    const quarter = /^q([1-4])$/.exec(word)?.[1];
    if (
      month
        ? put('month', month)
        : season
          ? put('season', season)
          : quarter && put('quarter', Number(quarter))
    )
      continue;
    if (word === 'quarter' || word === 'quartal' || word === 'trimestre') {
      // The number before it was its own.
      if (parts.day === undefined || parts.day > 4 || !put('quarter', parts.day)) return undefined;
      delete parts.day;
      continue;
    }
    if (!/^\d{1,4}$/.test(word)) return undefined;
    const n = Number(word);
    const isYear = word.length === 4 || (era !== 0 && (word.length > 2 || !parts.month));
    if (!(isYear ? put('year', n) : word.length <= 2 && put('day', n))) return undefined;
  }
  if (era < 0 && parts.year !== undefined) parts.year = 1 - parts.year;
  return era !== 0 && parts.year === undefined ? undefined : parts;
}

const pad = (n: number, width: number) => String(Math.abs(n)).padStart(width, '0');

/** Parts as a date of EDTF, where they are one: a year, with month and day, a season or a quarter. */
function edtfOfParts({ year, month, day, season, quarter }: Parts): string | undefined {
  if (year === undefined) return undefined;
  const text = (year < 0 ? '-' : '') + pad(year, 4);
  if (season ?? quarter)
    return month || day || (season && quarter)
      ? undefined
      : `${text}-${season ? 20 + season : 32 + quarter!}`;
  if (day && !month) return undefined;
  return [text, ...(month ? [pad(month, 2)] : []), ...(day ? [pad(day, 2)] : [])].join('-');
}

/** The ends of a range in EDTF; what the first leaves out is that of the last, as in `12–14 March 2019` or `March–April 2019`. */
function rangeOf(from: string, to: string, hyphen: boolean): string | undefined {
  const last = partsOf(to);
  const bare = /^\s*\d{1,4}\s*$/.test(from);
  const first = partsOf(from) ?? (bare ? {} : undefined);
  if (!first || !last) return undefined;
  // 1990–95
  const short = /^\d{2}$/.exec(to.trim());
  if (short && first.year !== undefined && Object.keys(first).length === 1) {
    const year = Math.floor(first.year / 100) * 100 + Number(short[0]);
    // What stands behind a hyphen may be meant for a month.
    return year > first.year && !(hyphen && Number(short[0]) <= 31)
      ? `${pad(first.year, 4)}/${pad(year, 4)}`
      : undefined;
  }
  // March 12–14, 2019
  if (last.month === undefined && first.month !== undefined && last.day !== undefined)
    last.month = first.month;
  if (first.year === undefined && last.year !== undefined) {
    // 300–250 BC
    const before = bare && last.year < 0;
    first.year = before ? 1 - Number(from) : last.year;
    if (before) delete first.day;
  }
  if (first.month === undefined && first.day !== undefined && last.month !== undefined)
    first.month = last.month;
  const [a, b] = [edtfOfParts(first), edtfOfParts(last)];
  const order = ({ year = 0, month = 0, day = 0, season = 0, quarter = 0 }: Parts) =>
    year * 10_000 + (month || season || quarter) * 100 + day;
  return a && b && order(first) < order(last) ? `${a}/${b}` : undefined;
}

/** A text in EDTF, or as `partsOf` and `rangeOf` read it. */
function inEdtf(text: string): string | undefined {
  const t = text.trim().replace(/^©\s*|[.,]$/g, '');
  if (!t) return undefined;
  const decade = /^(?:the\s+)?(\d{3})0(?:['’]?s|er(?:\s+jahre)?)$/i.exec(t);
  if (decade) return `${decade[1]}X`;
  const century = /^(?:the\s+)?(\d{1,2})(?:st|nd|rd|th|\.)\s*(?:century|cent\.|c\.|jahrhundert|jh\.?)$/i.exec(
    t,
  );
  if (century && Number(century[1]) > 1) return `${pad(Number(century[1]) - 1, 2)}XX`;
  // What goes on is no date alone.
  const whole = /[-–—/]$/.test(t) ? undefined : partsOf(t);
  const one = whole && edtfOfParts(whole);
  if (one) return one;
  // Each place where a range may be parted; the first that reads on both sides.
  for (const m of t.matchAll(new RegExp(BETWEEN, 'gi'))) {
    const [from, to] = [t.slice(0, m.index), t.slice(m.index + m[0].length)];
    const first = GOES_ON.test(to.trim()) ? partsOf(from) : undefined;
    const open = first && edtfOfParts(first);
    if (open) return `${open}/..`;
    const range = from && to ? rangeOf(from, to, m[0].trim() === '-') : undefined;
    if (range) return range;
  }
  return undefined;
}

/**
 * A date as people write it by hand, read whole or not at all: `c. 1890`, `[1890?]`, `Spring 2019`, `1850s`, `19th century`,
 * `before 1850`, `1990–95`, `12–14 March 2019`, `March–April 2019`, `Q1 2019`, `44 BC`, `1985–present`, `marzo de 2019`,
 * `2019年3月12日`. What each stands for is that of EDTF (ISO 8601-2:2019). Where a word is left over, or it is not plain which number is
 * which, it gives `undefined`.
 */
export function spelledDate(text: string): CslDate | undefined {
  let t = text.trim();
  if (t === '' || t.length > 80 || !/\d/.test(t)) return undefined;
  const bracketed = /^\[(.+)\]$/.exec(t);
  if (bracketed) t = bracketed[1]!.trim();
  const circa = CIRCA.test(t);
  t = t.replace(CIRCA, '').trim();
  const doubted = /\s*\(?\?\)?$/.exec(t);
  if (doubted) t = t.slice(0, doubted.index);
  const [until, since] = [UNTIL.test(t), SINCE.test(t)];
  // From one to another is a range, and no beginning alone.
  const bare = t.replace(until ? UNTIL : since ? SINCE : /^$/, '');
  const found = inEdtf(bare);
  if (!found) return undefined;
  const mark = circa && doubted ? '%' : circa ? '~' : doubted ? '?' : '';
  const marked = found.includes('/')
    ? found.replace(/[^/]+$/, (end) => (end === '..' ? end : end + mark))
    : found + mark;
  if (!until && !(since && !found.includes('/'))) return parseEdtf(marked);
  if (found.includes('/')) return undefined;
  return parseEdtf(until ? `../${marked}` : `${marked}/..`);
}
