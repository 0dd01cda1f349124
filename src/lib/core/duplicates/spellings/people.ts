import { looksInstitutional, nameText, parseName, type CslName } from '../../source';
import { fold } from '../../text';
import { latin, romanise } from '../signature';
import type { Difference } from './differences';

/** A name taken apart for telling whether another spelling is the same person's. */
export interface PersonParts {
  /** Family name with its particles, in comparison form. */
  family: string;
  /** The last word of it. */
  last: string;
  /** Given names or initials, in order: as they sound alike, as their letters are, and whether they are cut short. */
  given: { alike: string; letters: string; short: boolean }[];
  suffix: string;
  /** It was one string that had to be taken apart. */
  literal: boolean;
}

const PARTS = [
  'family',
  'given',
  'dropping-particle',
  'non-dropping-particle',
  'suffix',
  'literal',
  'comma-suffix',
  'static-ordering',
] as const;

/** A name as one string that tells it from every other spelling, and from which it is read again. */
export const formOfName = (name: CslName): string =>
  JSON.stringify(PARTS.flatMap((part) => (name[part] === undefined ? [] : [[part, name[part]]])));

/** The name of a form that `formOfName` gave. */
export const nameOfForm = (form: string): CslName =>
  Object.fromEntries(JSON.parse(form) as [string, string | boolean][]) as CslName;

/** Whether a name is an institution's: kept whole, and compared by its words. */
export const isInstitution = (name: CslName): boolean =>
  name.literal !== undefined && looksInstitutional(name.literal);

const word = (text: string, short: boolean) => ({ alike: latin(text), letters: romanise(text), short });

/** `J. R.`, `JR`, `J.-P.` and `Jean-Paul` as their words; one of a letter, or with a full stop behind it, is cut short. In a name that is all capitals they say nothing. */
const givenWords = (given: string, shouting: boolean) =>
  [
    ...(shouting ? given : given.replace(/(\p{Lu})(?=\p{Lu}{1,2}\b(?!\p{Ll}))/gu, '$1 ')).matchAll(
      /([\p{L}\p{M}\p{N}’']+)(\.?)/gu,
    ),
  ]
    .slice(0, 8)
    .map(([, letters, stop]) => word(letters!, stop === '.' || [...letters!].length === 1));

/** Takes a person's name apart; nothing for an institution, and for a name that is one word. */
export function partsOfPerson(name: CslName): PersonParts | undefined {
  if (isInstitution(name)) return undefined;
  const read = name.literal === undefined ? name : (parseName(name.literal) ?? name);
  if (!read.family || !read.given) return undefined;
  const family = latin(
    [read['dropping-particle'], read['non-dropping-particle'], read.family].filter(Boolean).join(' '),
  );
  const given = givenWords(read.given, !/\p{Ll}/u.test(read.family));
  const last = family.split(' ').at(-1) ?? '';
  if (last === '' || given.length === 0 || given[0]!.letters === '') return undefined;
  return { family, last, given, suffix: fold(read.suffix ?? ''), literal: name.literal !== undefined };
}

/** What a person's spellings are found by: the end of the family name, and the first letter of the given one. */
export const keyOfPerson = (p: PersonParts): string => `person ${p.last} ${p.given[0]!.letters[0]}`;

/** How two spellings of a person's name differ; nothing when they are two people's. */
export function comparePeople(a: PersonParts, b: PersonParts): Difference[] | undefined {
  if (a.last !== b.last || a.suffix !== b.suffix) return undefined;
  const found = new Set<Difference>();
  if (a.family !== b.family) {
    if (!a.family.endsWith(` ${b.family}`) && !b.family.endsWith(` ${a.family}`)) return undefined;
    found.add('particle');
  }
  for (const [i, x] of a.given.entries()) {
    const y = b.given[i];
    if (!y) break;
    if (x.alike === y.alike) continue;
    const [less, more] = x.letters.length < y.letters.length ? [x, y] : [y, x];
    if (!less.short || less.letters === '' || !more.letters.startsWith(less.letters)) return undefined;
    found.add('initials');
  }
  if (a.given.length !== b.given.length) found.add('fewer');
  if (a.literal !== b.literal) found.add('parts');
  if (found.size === 0) found.add('marks');
  return [...found];
}

/** How much of a name is written out: letters of the given names, and more where it is told apart from the family name. */
export const completenessOfPerson = (p: PersonParts): number =>
  p.given.reduce((sum, { letters }) => sum + letters.length, 0) * 2 + p.family.length + (p.literal ? 0 : 1);

/** A person's name as it is shown. */
export const personText = (form: string): string => nameText(nameOfForm(form));
