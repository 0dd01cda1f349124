/**
 * Whether a title shouts: at least two words of four or more letters, and none of them has a lower-case letter.
 * A common practice, not a published rule: shorter words may be abbreviations (`DNA`, `USA`).
 */
export function isShouting(title: string): boolean {
  const long = title.match(/\p{L}{4,}/gu) ?? [];
  const cased = long.filter((w) => w.toLowerCase() !== w.toUpperCase());
  return cased.length >= 2 && cased.every((w) => w === w.toUpperCase());
}

/** What is known of a title whose case is changed. */
export interface CaseHints {
  /** Its language as a tag of BCP 47; English where nothing is said. */
  language?: string | undefined;
  /** Names as they are written, by their lower case: `thames` to `Thames`. */
  known?: ReadonlyMap<string, string> | undefined;
}

/** A tag, a word with its marks and apostrophes, or a mark that ends a sentence or opens a subtitle. */
const TOKEN = /<[^<>]*>|[\p{L}\p{N}][\p{L}\p{N}\p{M}’']*|[:?!.–—]/gu;
const ENDS = /^[:?!.–—]$/u;
/** Roman numerals from two to thirty-nine, as of kings, wars and volumes. */
const ROMAN = /^(?=[IVX]{2})X{0,3}(?:IX|IV|V?I{0,3})$/;
const PLAIN_WORD = /^\p{Lu}[\p{Ll}\p{M}]*(?:[’']s)?$/u;

const CALENDAR =
  'January February March April June July August September October November December Monday Tuesday Wednesday Thursday Friday Saturday Sunday Christmas Easter';
/** Adjectives of places, which are no names of languages; English has them in capitals. */
const OF_PLACES =
  'African American Asian European Australian British Canadian Mexican Brazilian Egyptian Indian Israeli Swiss Austrian Belgian Roman Victorian Atlantic Pacific Mediterranean Arctic Antarctic Baltic Christian Catholic Protestant Jewish Muslim Islamic Buddhist Hindu Africa America Asia Europe London Paris England Scotland Wales Britain';

let capitals: Map<string, string> | undefined;
/** Words that English writes with a capital wherever they stand: languages and countries as Unicode CLDR names them (through Intl), days, months, and some more. */
function alwaysCapital(): Map<string, string> {
  if (capitals) return capitals;
  capitals = new Map();
  const add = (name: string | undefined) => {
    if (name && /^\p{Lu}\p{Ll}+$/u.test(name)) capitals!.set(name.toLowerCase(), name);
  };
  for (const name of `${CALENDAR} ${OF_PLACES}`.split(' ')) add(name);
  const letters = [...'abcdefghijklmnopqrstuvwxyz'];
  for (const [type, turn] of [
    ['language', (code: string) => code],
    ['region', (code: string) => code.toUpperCase()],
  ] as const) {
    const names = new Intl.DisplayNames(['en'], { type, fallback: 'none' });
    for (const a of letters) for (const b of letters) add(names.of(turn(a + b)));
  }
  // These are common words first.
  for (const word of ['chad', 'jersey', 'turkey', 'guinea', 'china']) capitals.delete(word);
  return capitals;
}

const isEnglish = (language: string | undefined) => !language || /^en\b/i.test(language);

/**
 * A title in sentence case: a capital for the first word and, in English, for the first after `:`, `?`, `!`, `.` or a
 * dash, and for names. Words in mixed case or in capitals stay (`eDNA`, `USA`, `McAdam`), as do roman numerals, what stands in
 * `<span class="nocase">`, single letters before a hyphen (`X-ray`) and names that are known. German stays as it is,
 * since its nouns have capitals. In a title that shouts, all else goes to lower case, so that names that are not known must be
 * set by the person.
 * Source of the rule for English: Publication Manual of the American Psychological Association, 7th ed., 6.17 (from memory).
 */
export function sentenceCase(title: string, { language, known }: CaseHints = {}): string {
  const shouting = isShouting(title.replace(/<[^<>]{0,200}>/g, ''));
  if (/^de\b/i.test(language ?? '') && !shouting) return title;
  const english = isEnglish(language);
  let start = true;
  let kept = 0;
  let hyphened = false;
  return title.replace(TOKEN, (token, at: number) => {
    if (token.startsWith('<')) {
      if (/^<span\b/i.test(token)) kept = kept || /nocase/i.test(token) ? kept + 1 : 0;
      else if (/^<\/span/i.test(token)) kept = Math.max(0, kept - 1);
      return token;
    }
    if (ENDS.test(token)) {
      if (english || token !== ':') start = true;
      return token;
    }
    const first = start;
    start = false;
    hyphened = title[at + token.length] === '-';
    if (kept) return token;
    const lower = token.toLowerCase();
    const name = known?.get(lower.replace(/[’']s$/, ''));
    const capital = english ? alwaysCapital().get(lower.replace(/[’']s$/, '')) : undefined;
    let word = token;
    if (name) word = name + token.slice(name.length).toLowerCase();
    else if (ROMAN.test(token) || /\d/.test(token)) word = token;
    else if (english && /^I(?:[’'](?:m|d|ve|ll))?$/i.test(token) && (token[0] === 'I' || shouting))
      word = `I${lower.slice(1)}`;
    else if (!shouting && /^\p{Lu}$/u.test(token) && hyphened) word = token;
    else if (capital && (shouting || PLAIN_WORD.test(token))) word = capital + lower.slice(capital.length);
    else if (shouting || PLAIN_WORD.test(token)) word = lower;
    return first ? word.charAt(0).toUpperCase() + word.slice(1) : word;
  });
}

/** Words that stay in lower case within a title. Source: CSL 1.0.2 specification, "Text-case", title case. */
const STOP_WORDS = new Set(
  'a an and as at but by down for from in into nor of on onto or over so the till to up via with yet'.split(
    ' ',
  ),
);

/**
 * A title in title case, as English has it: a capital for every word but the stop words of CSL, which have one only where they
 * are first, last or follow a colon. Words in mixed case or in capitals stay. Other languages have no title case and are
 * left as they are. Source: CSL 1.0.2 specification, "Text-case".
 */
export function titleCase(title: string, { language, known }: CaseHints = {}): string {
  if (!isEnglish(language)) return title;
  const shouting = isShouting(title.replace(/<[^<>]{0,200}>/g, ''));
  const words = [...title.matchAll(TOKEN)].filter(([t]) => !t.startsWith('<') && !ENDS.test(t));
  const lastAt = words.at(-1)?.index;
  let start = true;
  let kept = 0;
  return title.replace(TOKEN, (token, at: number) => {
    if (token.startsWith('<')) {
      if (/^<span\b/i.test(token)) kept = kept || /nocase/i.test(token) ? kept + 1 : 0;
      else if (/^<\/span/i.test(token)) kept = Math.max(0, kept - 1);
      return token;
    }
    if (ENDS.test(token)) {
      start = true;
      return token;
    }
    const first = start;
    start = false;
    if (kept) return token;
    const lower = token.toLowerCase();
    const name = known?.get(lower);
    if (name) return name;
    if (ROMAN.test(token)) return token;
    const word = shouting ? lower : token;
    if (!/^\p{Lu}?[\p{Ll}\p{M}]*(?:[’']\p{Ll}+)?$/u.test(word)) return word;
    const within = title[at - 1] === '-';
    if (STOP_WORDS.has(lower) && !first && (at !== lastAt || within)) return lower;
    return word.charAt(0).toUpperCase() + word.slice(1);
  });
}

/**
 * Whether an English title has capitals as a headline has: of at least three words of four or more letters behind the
 * first, no less than four in five begin with one. A common practice for telling, not a published rule.
 */
export function isTitleCased(title: string): boolean {
  if (isShouting(title)) return false;
  const words = [...title.matchAll(/(?<![\p{L}’'.-])\p{L}[\p{L}\p{M}’']{3,}/gu)].slice(0, 60);
  const behind = words.filter(
    ({ index }) => index > 0 && !/[:?!.–—]\s*["“‘]?$/u.test(title.slice(Math.max(0, index - 3), index)),
  );
  if (behind.length < 3) return false;
  const high = behind.filter(([w]) => /^\p{Lu}/u.test(w)).length;
  return high >= behind.length * 0.8;
}
