import { inCase, type TextCase } from './case';
import { isOn, type NameValue } from './item';
import { affixed, piece, type Look, type Node, type Piece } from './pieces';
import { richText } from './rich';

export interface NamePart {
  look?: Look;
  textCase?: TextCase;
  prefix?: string;
  suffix?: string;
}

/** How a style writes names; CSL 1.0.2, "Name" and "Inheritable Name Options". */
export interface NameOptions {
  and?: 'text' | 'symbol';
  delimiter: string;
  precedesEtAl: Precedes;
  precedesLast: Precedes;
  min?: number;
  useFirst?: number;
  subsequentMin?: number;
  subsequentUseFirst?: number;
  useLast: boolean;
  form: 'long' | 'short' | 'count';
  initialize: boolean;
  initializeWith?: string;
  hyphenated: boolean;
  sortOrder?: 'first' | 'all';
  sortSeparator: string;
  demote: 'never' | 'sort-only' | 'display-and-sort';
  look?: Look;
  prefix?: string;
  suffix?: string;
  family?: NamePart;
  given?: NamePart;
}

/** The level of a given name told by its initials where the style writes none: a rule of disambiguation may ask for no more. */
export const INITIALS_ALONE = 3;

export type Precedes = 'contextual' | 'after-inverted-name' | 'always' | 'never';

/** A name in letters of the West, which put a blank between its parts. */
const isRomanesque = (text: string): boolean =>
  /^[\p{Script=Latin}\p{Script=Cyrillic}\p{Script=Greek}\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Armenian}\p{Script=Georgian}\p{Script=Devanagari}\p{Script=Thai}\p{Script=Inherited}\p{Script=Common}\s]*$/u.test(
    text,
  );

/** Letters of the East all stand behind this one; looking for scripts takes long. */
const MAY_BE_EASTERN = /[\u1100-\uffff]/;

function isEastern({ family = '', given = '' }: NameValue): boolean {
  if (!MAY_BE_EASTERN.test(family) && !MAY_BE_EASTERN.test(given)) return false;
  return /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]/u.test(family + given);
}

const CAPITAL = /\p{Lu}/u;

/** Initials made by the options of one list, which the same given name comes to again and again. */
const made = new WeakMap<object, Map<string, string>>();
function initialsKept(given: string, options: NameOptions): string {
  let kept = made.get(options);
  if (!kept) made.set(options, (kept = new Map()));
  let text = kept.get(given);
  if (text === undefined) {
    if (kept.size > 20_000) kept.clear();
    kept.set(given, (text = initials(given, options)));
  }
  return text;
}

type Initials = Pick<NameOptions, 'initialize' | 'initializeWith' | 'hyphenated'>;

/**
 * Given names as initials; CSL 1.0.2, "Name", `initialize-with`. What is an abbreviation already takes the mark as it is;
 * words that begin small stand as they are; with `initialize` off so do all whole words.
 */
export function initials(given: string, options: Initials): string {
  const mark = options.initializeWith ?? '';
  let out = '';
  let whole = false;
  const add = (text: string, isWhole: boolean) => {
    if (out && (isWhole || whole) && !/\s$/.test(out)) out += ' ';
    out += text;
    whole = isWhole;
  };
  for (const word of given
    .trim()
    .split(/[\s\u00a0]+/)
    .flatMap(abbreviations)) {
    if (word === '') continue;
    const tag = /^(<(\w+)[^>]*>)(.*?)(<\/\2>)(.*)$/su.exec(word);
    const plain = tag ? tag[3]! + tag[5]! : word.replace(/<[^>]*>/g, '');
    const parts = plain.split(/[-\u2010\u2011]/).filter(Boolean);
    const [first = ''] = parts;
    const isWhole = !isAbbreviation(first) && (!options.initialize || !beginsLarge(first));
    if (isWhole || first === '') {
      add(tag ? word : plain, true);
      continue;
    }
    const letters = parts
      .filter((p, i) => i === 0 || beginsLarge(p))
      .map((p) => (isAbbreviation(p) ? p.replace(/\.$/, '') : initialOf(p)));
    const each = letters.map((letter, i) => {
      const marked =
        i < letters.length - 1
          ? `${letter}${mark.trimEnd()}${options.hyphenated ? '-' : mark.slice(mark.trimEnd().length)}`
          : letter + mark;
      return i === 0 && tag
        ? `${tag[1]!}${marked.replace(/(\s|-)*$/, '')}${tag[4]!}${/(?:\s|-)*$/.exec(marked)![0]}`
        : marked;
    });
    add(each.join(''), false);
  }
  return out.trimEnd();
}

const beginsLarge = (word: string) => {
  const [first = ''] = word;
  return CAPITAL.test(first) || (/\p{L}/u.test(first) && first.toLowerCase() === first.toUpperCase());
};

/** A word that stands for a longer one: an initial, or anything with a point behind. */
const isAbbreviation = (word: string) =>
  /^\p{Lu}\p{M}*$/u.test(word) || /^\p{Lu}[\p{L}\p{M}]{0,4}\.$/u.test(word);

/** "J.R." as "J." and "R."; what stands behind the last point is a word, or an initial without its point. */
function abbreviations(word: string): string[] {
  if (!word.includes('.') || word.includes('<')) return [word];
  const parts = word.split(/(?<=\.)(?!-|$)/);
  return parts.map((p, i) => (i > 0 && /^\p{Lu}$/u.test(p) ? `${p}.` : p));
}

/** The first letter of a name. */
function initialOf(word: string): string {
  // "TSerendorjiin": one letter of another script, written as two.
  const two = /^\p{Lu}{2,3}(?=\p{Ll})/u.exec(word);
  if (two) return two[0][0]! + two[0].slice(1).toLowerCase();
  const m = /^\p{L}\p{M}*/u.exec(word);
  return m ? m[0].toUpperCase() : word[0]!;
}

function partNode(text: Node[], part: NamePart | undefined, lang: string | undefined): Node {
  if (!part) return text.length === 1 ? text[0]! : piece(text);
  const kids = inCase(text, part.textCase, lang);
  return part.look ? piece(kids, { look: part.look }) : kids.length === 1 ? kids[0]! : piece(kids);
}

/** Two parts of a name with a blank between, none behind an apostrophe or a hyphen. */
function beside(a: Node[], b: Node[], textA: string): Node[] {
  if (a.length === 0) return b;
  if (b.length === 0) return a;
  return [...a, /[\u2019'`\u2010-]$/.test(textA) ? '' : ' ', ...b];
}

/**
 * One name as a style writes it. `level` is how far the given name is told: 0 as the style has it, 1 its initials, 2 the
 * whole. CSL 1.0.2, "Name-part Order".
 */
export function nameNode(
  name: NameValue,
  options: NameOptions,
  inverted: boolean,
  level: number,
  lang: string,
  sorting: boolean,
): Node {
  if (name.literal !== undefined && !name.family)
    return partNode(richText(name.literal), options.family, lang);
  const family = name.family ?? '';
  let given = name.given ?? '';
  const dropping = name['dropping-particle'] ?? '';
  const kept = name['non-dropping-particle'] ?? '';
  // Where initials take no point, neither does "Jr".
  const bare = options.initializeWith !== undefined && !options.initializeWith.includes('.');
  const suffix = bare ? (name.suffix ?? '').replace(/\./g, '') : (name.suffix ?? '');
  const eastern = isEastern(name);
  const short = options.form === 'short' && level === 0;
  const shortened = options.initializeWith !== undefined ? level < 2 : level === INITIALS_ALONE;
  if (given && !eastern) {
    if (shortened) given = initialsKept(given, options);
    else if (options.initializeWith !== undefined && level === 2)
      given = given.replace(/(\p{Lu})\.(?=\p{Lu}\.)/gu, '$1. ');
  }
  const { sortSeparator } = options;
  if (!family) return piece(around(partNodes(name.given ?? '', options.given, lang), options.given));
  const familyNodes = partNodes(family, options.family, lang);
  if (eastern) {
    const parts = around(familyNodes, options.family);
    if (short || !given) return piece(parts);
    const behind = around(partNodes(given, options.given, lang), options.given);
    return piece(isRomanesque(given) ? [...parts, ' ', ...behind] : [...parts, ...behind]);
  }
  const particle = kept ? particleNodes(kept, options.family, lang) : NONE;
  // In a key to sort by, a particle is a word, also where an apostrophe joins it to the name.
  const keptFamily = beside(particle, familyNodes, sorting ? '' : kept);
  if (short)
    return piece(
      inverted && kept && options.demote === 'display-and-sort'
        ? [...around(familyNodes, options.family), sortSeparator, ...particle]
        : around(keptFamily, options.family),
    );
  const givenNodes = given ? partNodes(given, options.given, lang) : NONE;
  if (isOn(name['static-ordering'])) {
    const parts = around(keptFamily, options.family);
    return piece(given ? [...parts, ' ', ...around(givenNodes, options.given)] : parts);
  }
  const dropped = dropping ? particleNodes(dropping, options.given, lang) : NONE;
  if (inverted || sorting) {
    const demoted = options.demote === 'display-and-sort' || (sorting && options.demote !== 'never');
    let tail = beside(givenNodes, dropped, given);
    if (demoted) tail = beside(tail, particle, dropping || given);
    tail = around(tail, options.given);
    const out = [...around(demoted ? familyNodes : keptFamily, options.family)];
    if (tail.length) out.push(sortSeparator, ...tail);
    if (suffix) out.push(sortSeparator, suffix);
    return piece(out);
  }
  let surname = beside(dropped, keptFamily, dropping);
  if (suffix) surname = [...surname, isOn(name['comma-suffix']) ? ', ' : ' ', suffix];
  surname = around(surname, options.family);
  return piece(given ? [...around(givenNodes, options.given), ' ', ...surname] : surname);
}

const NONE: Node[] = [];

/** A part of a name, as a style has its letters. */
const partNodes = (text: string, part: NamePart | undefined, lang: string): Node[] =>
  text ? [partNode(richText(text), part, lang)] : NONE;

/** A particle, which looks as the part of the name it belongs to and has none of its affixes. */
const particleNodes = (text: string, part: NamePart | undefined, lang: string): Node[] => [
  partNode(
    [text.replace(/'/g, '\u2019')],
    part && {
      ...(part.look ? { look: part.look } : {}),
      ...(part.textCase ? { textCase: part.textCase } : {}),
    },
    lang,
  ),
];

/** A part of a name between its affixes. */
const around = (nodes: Node[], part: NamePart | undefined): Node[] =>
  nodes.length && (part?.prefix || part?.suffix)
    ? [affixed(nodes.length === 1 ? nodes[0]! : piece(nodes), part.prefix, part.suffix)]
    : nodes;

/** A name as it is told apart from others: its family name with what belongs to it, then initials, then all. */
export function nameKeys(name: NameValue): NameKeys {
  const known = keysKnown.get(name);
  if (known) return known;
  const keys = keysOf(name);
  keysKnown.set(name, keys);
  return keys;
}

const NAME_PARTS = [
  'family', 'given', 'dropping-particle', 'non-dropping-particle', 'suffix', 'comma-suffix', 'static-ordering', 'parse-names',
  'literal', 'isInstitution',
] as const satisfies readonly (keyof NameValue)[]; // prettier-ignore

/** Whether two names are written the same in every part, so that they print the same wherever one does. */
export const sameName = (a: NameValue, b: NameValue): boolean =>
  a === b || NAME_PARTS.every((part) => a[part] === b[part]);

type NameKeys = [family: string, initials: string, full: string];
const keysKnown = new WeakMap<NameValue, NameKeys>();

function keysOf(name: NameValue): NameKeys {
  if (name.literal !== undefined && !name.family) return [name.literal, name.literal, name.literal];
  const family = `${name['non-dropping-particle'] ?? ''}|${name.family ?? ''}`;
  const rest = `${name['dropping-particle'] ?? ''}|${name.suffix ?? ''}`;
  const given = (name.given ?? '').replace(/\.\s*/g, '. ').trim();
  const short = initials(given, { initialize: true, initializeWith: '', hyphenated: true });
  return [family, `${family}|${short}|${rest}`, `${family}|${given}|${rest}`];
}

/** A term that begins with a letter of an alphabet, before which a blank belongs. */
const WORD_OF_LETTERS = /^(?![\u3000-\u9fff\uac00-\ud7af])[\p{L}&+]/u;

/** What a list of names looks like beside its names. */
export interface ListLook {
  etAlTerm: string;
  etAlLook?: Look;
  and?: string;
}

/**
 * How many of a list are shown at a mention: all, or so many before "et al."; at either of them, as few as the first or a later
 * one shows. CSL 1.0.2, "Et-al Abbreviation".
 */
export function shownOf(
  count: number,
  options: NameOptions,
  mention: 'first' | 'later' | 'either',
  least: number | undefined,
  sorting: { min?: number; useFirst?: number } | undefined,
): number {
  if (mention === 'either')
    return Math.min(
      shownOf(count, options, 'first', least, sorting),
      shownOf(count, options, 'later', least, sorting),
    );
  const subsequent = mention === 'later';
  const later = subsequent && options.subsequentMin !== undefined;
  const min = sorting?.min ?? (later ? options.subsequentMin : options.min);
  const useFirst =
    sorting?.useFirst ??
    (subsequent && options.subsequentUseFirst !== undefined ? options.subsequentUseFirst : options.useFirst);
  if (min === undefined || useFirst === undefined || count < min || useFirst >= count) return count;
  return Math.min(count, Math.max(useFirst, least ?? 0));
}

/** A list of names, each printed already, with its delimiters, its "and" or its "et al.". */
export function listNode(
  nodes: Node[],
  inverted: boolean[],
  total: number,
  options: NameOptions,
  look: ListLook,
  last: Node | undefined,
): Node[] {
  const wrap = (n: Node): Piece => (typeof n === 'string' ? piece([n]) : n);
  const { delimiter } = options;
  const out: Node[] = [];
  const shown = nodes.length;
  const precedes = (rule: Precedes, contextual: boolean, before: boolean) =>
    rule === 'always' || (rule === 'contextual' && contextual) || (rule === 'after-inverted-name' && before);
  if (shown < total) {
    if (shown === 0) return [];
    for (let i = 0; i < nodes.length; i++) {
      if (i > 0) out.push(delimiter);
      out.push(wrap(nodes[i]!));
    }
    if (last !== undefined) {
      out.push(delimiter, '\u2026 ', wrap(last));
      return out;
    }
    if (look.etAlTerm === '') return out;
    const with_ = precedes(options.precedesEtAl, shown > 1, inverted[shown - 1]!);
    out.push(with_ ? delimiter : WORD_OF_LETTERS.test(look.etAlTerm) ? ' ' : '');
    out.push(look.etAlLook ? piece([look.etAlTerm], { look: look.etAlLook }) : look.etAlTerm);
    return out;
  }
  for (let i = 0; i < nodes.length; i++) {
    if (i > 0) {
      if (i === shown - 1 && look.and !== undefined) {
        const with_ = precedes(options.precedesLast, shown > 2, inverted[i - 1]!);
        // A word of another script, or one that brings its own blanks, takes none.
        const tight = /^[\u3000-\u9fff]|^\s|\s$/.test(look.and);
        const space = tight ? '' : ' ';
        // A word that is written together with the next, as Hebrew does.
        const behind = tight || /^[\u0590-\u05ff]+$/.test(look.and) ? '' : ' ';
        out.push(with_ ? delimiter.replace(/\s*$/, space) : space, look.and, behind);
      } else out.push(delimiter);
    }
    out.push(wrap(nodes[i]!));
  }
  return out;
}
