import { fold, nfc, squash, withoutTrailing } from '../text';
import type { CslName, SourceRecord } from './schema';
import type { NameVariable } from './variables';

/** Particles that stay with the family name when it sorts first (common practice; lower case as printed). */
const PARTICLES = new Set(
  'van von der den de del della di da dos das du la le les lo ten ter te zu zum zur af av el al ibn bin bint y'.split(
    ' ',
  ),
);
/** First words of family names written apart, as in Irish and Scottish names; part of the family name. */
const FAMILY_FIRST = /^(?:Ó|Ní|Nic|Uí|Mac|Mc|Saint|St\.?)$/u;
const SUFFIX = /^(?:jr|sr|ii|iii|iv|v|esq|ph\.?d|m\.?d)\.?$/i;
/** What stands for nothing else where it is all that follows the family name: `Pell, V.`, `Pell, Iv` and `Pell, Md.` have given names. */
const SUFFIX_ALONE = /^(?:[Jj][Rr]\.?|[Ss][Rr]\.?|[Ee]sq\.?|II|III)$/;
const INSTITUTION =
  /\b(university|universität|université|institute?|institut|council|committee|department|ministry|agency|society|association|trust|office|board|commission|organi[sz]ation|museum|library|archive|survey|service|centre|center|laboratory|group|team|project|consortium|press|company|ltd|inc|gmbh|union|authority|federation|collective|network|foundation|harbour|parliament|staff|desk)\b/i;
const NO_GIVEN_NAME_SCRIPT = /^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]+$/u;

/** Whether a name reads as that of an institution. A guess by its words; a person can say otherwise. */
export function looksInstitutional(name: string): boolean {
  return INSTITUTION.test(name);
}

function leadingParticle(words: string[]): number {
  let n = 0;
  while (n < words.length - 1) {
    const word = words[n] ?? '';
    if (!PARTICLES.has(word) && !/^(?:d|l)[’']$/u.test(word)) break;
    n++;
  }
  return n;
}

function withParticle(family: string): Pick<CslName, 'family' | 'non-dropping-particle'> {
  const words = family.split(' ');
  const n = leadingParticle(words);
  if (n === 0) return { family };
  return { 'non-dropping-particle': words.slice(0, n).join(' '), family: words.slice(n).join(' ') };
}

/** Longest text that is taken apart as a name, in characters; a longer one is kept whole. */
const LONGEST_NAME = 1_000;

/**
 * One name as a page or file writes it, split as far as it can be known.
 * Reads `Family, Given`, `Family, Jr., Given`, `Family, Given, Jr.` and `Given particle Family Jr.`; strips a leading
 * "By". Institutions, single names and names in scripts that do not separate parts stay whole (`literal` for
 * institutions, `family` alone otherwise). Empty text gives `undefined`.
 */
export function parseName(text: string): CslName | undefined {
  const whole = squash(nfc(text)).replace(/^by\s+(?=\S)/i, '');
  const clean = withoutTrailing(whole, ',;').trimEnd();
  if (clean === '' || !/\p{L}/u.test(clean)) return undefined;
  if (clean.length > LONGEST_NAME) return { literal: clean };
  const commas = clean.split(/\s*[,،]\s*/u).filter(Boolean);
  if (commas.length === 1) {
    if (looksInstitutional(clean)) return { literal: clean };
    return unseparated(clean);
  }
  if (looksInstitutional(clean) && !/,\s*(?:\p{Lu}\.?\s*)+$/u.test(clean)) return { literal: clean };
  const ending = commas.length === 2 ? SUFFIX_ALONE : SUFFIX;
  const suffixAt = commas.findIndex((part, i) => i > 0 && ending.test(part));
  const suffix = suffixAt > 0 ? commas.splice(suffixAt, 1)[0] : undefined;
  const [family = '', ...rest] = commas;
  if (rest.length === 0) return { ...unseparated(family), ...(suffix ? { suffix } : {}) };
  return { ...withParticle(family), given: rest.join(', '), ...(suffix ? { suffix } : {}) };
}

function unseparated(clean: string): CslName {
  if (NO_GIVEN_NAME_SCRIPT.test(clean)) return { family: clean };
  const words = clean.split(' ');
  const last = words[words.length - 1] ?? '';
  const suffix = words.length > 2 && SUFFIX.test(last) ? words.pop() : undefined;
  if (words.length === 1) return { family: clean };
  let at = words.findIndex((word, i) => i > 0 && i < words.length - 1 && PARTICLES.has(word));
  if (at === -1 && PARTICLES.has(words[0] ?? '')) at = 0;
  const two = words.length > 2 && FAMILY_FIRST.test(words[words.length - 2] ?? '');
  // Mac Giolla Bhríde, Nic Giolla Phádraig: three words, of which the second is always the same.
  const three = words.length > 3 && words[words.length - 2] === 'Giolla';
  const split = at === -1 ? words.length - (three ? 3 : two ? 2 : 1) : at;
  const given = words.slice(0, split).join(' ');
  const name = withParticle(words.slice(split).join(' '));
  return { ...name, ...(given ? { given } : {}), ...(suffix ? { suffix } : {}) };
}

/**
 * A list of names in one string, at `;`, ` and `, ` & `, line ends, or commas when every part between commas is a
 * whole name. `Ferreira, A.; Ng, T.` gives two; `Ana Ferreira, Tsz Ho Ng and Cian Ó Súilleabháin` gives three.
 */
export function parseNames(text: string): CslName[] {
  const clean = squash(nfc(text)).replace(/^by\s+/i, '');
  let parts = clean.split(/\s*[;|\n]\s*/u);
  if (parts.length === 1) {
    const joined = clean.split(/\s+(?:and|und|et|&)\s+|\s*&\s*/iu).filter(Boolean);
    const byComma = joined.flatMap((p) => p.split(/\s*,\s*/u)).filter(Boolean);
    const whole = byComma.every((p) => p.includes(' ') && !/^(?:\p{Lu}\.[\s-]?)+$/u.test(p));
    if (looksInstitutional(clean) && joined.length > 1 && !clean.includes(',')) parts = [clean];
    else parts = byComma.length > 1 && whole ? byComma : joined;
  }
  return parts.map(parseName).filter((n): n is CslName => n !== undefined);
}

/** The words of a name, however they are set. */
type NameParts = Omit<CslName, 'comma-suffix' | 'static-ordering'>;

/** A name as it sorts: `van der Zee, Mieke, Jr.`; an institution as it is. */
export function nameText(name: NameParts): string {
  if (name.literal) return name.literal;
  const family = [name['dropping-particle'], name['non-dropping-particle'], name.family]
    .filter(Boolean)
    .join(' ');
  return [family, name.given, name.suffix].filter(Boolean).join(', ');
}

/** The part of a name that stands for it in a short form: the family name with its particle, or the whole. */
export function shortName(name: NameParts): string {
  return (
    name.literal || [name['non-dropping-particle'], name.family].filter(Boolean).join(' ') || name.given || ''
  );
}

/** Whether two names can be the same person: equal family names, and given names that agree as far as both go. */
export function samePerson(a: NameParts, b: NameParts): boolean {
  if (fold(shortName(a)) !== fold(shortName(b))) return false;
  const [x, y] = [a, b].map((n) =>
    fold(n.given ?? '')
      .split(' ')
      .filter(Boolean),
  ) as [string[], string[]];
  return x.every((word, i) => {
    const other = y[i];
    return other === undefined || other.startsWith(word) || word.startsWith(other);
  });
}

/** Kept under a creator variable when the list in a file ended with "and others": it is no field of the file. */
export const AND_OTHERS = 'and others';

/**
 * Whether a list of creators is known to go on: its file ended it with "and others", and no name was added to it since.
 * CSL has no place for this; styles print the names as if they were all.
 */
export function othersUnnamed({ retexa, ...record }: SourceRecord, variable: NameVariable): boolean {
  if (!Object.values(retexa.kept).some((fields) => fields[variable] === AND_OTHERS)) return false;
  const named = record[variable]?.length ?? 0;
  const inFiles = (retexa.origins[variable] ?? []).flatMap(({ kind, value }) =>
    kind === 'file' && Array.isArray(value) ? [value.length] : [],
  );
  return named > 0 && named <= Math.min(...inFiles);
}
