import {
  creatorsOf,
  looksInstitutional,
  nameText,
  parseName,
  parseNames,
  sameValue,
  samePerson,
  yearOf,
  type CslName,
} from '../../source';
import { withoutTrailing } from '../../text';
import type { Check, Finding } from '../types';

/** What is done to the names of a list: another name, several, or none. */
type Mended = (name: CslName) => CslName | CslName[] | undefined;

interface Rule {
  check: string;
  pencil: Finding['pencil'];
  message: string;
  label?: string;
  /** Whether a name has it. */
  has: (name: CslName) => boolean;
  mend?: Mended;
}

const DEGREE =
  /(?<![\p{L}])(?:(?:Prof|Dr|Mr|Mrs|Ms|Sir|Rev)\.?(?=\s)|(?:Ph\.?\s?D|M\.?\s?D|D\.?\s?Phil|M\.?\s?Sc|B\.?\s?Sc|M\.?\s?A|LL\.?\s?[BM]|Dr\.-Ing|Dipl\.-\p{L}+)\.?(?=$|[\s,]))/gu;
/** Degrees that stand behind a name, or titles before it; two letters alone may be initials. */
const hasDegree = (text: string) => {
  for (const [found] of text.matchAll(DEGREE)) {
    const letters = found.replace(/[^\p{L}]/gu, '');
    if (!/^(?:MA|MD|BA)$/i.test(letters) || !/^\p{Lu}\.?\s?\p{Lu}\.$/u.test(found)) return true;
  }
  return false;
};
const withoutDegree = (text: string) =>
  withoutTrailing(text.replace(DEGREE, ''), ' ,')
    .replace(/^[\s,]+/, '')
    .replace(/\s{2,}/g, ' ');

const parts = ['family', 'given', 'literal', 'suffix'] as const;
/** A name with each of its parts changed; nothing when no part is left. */
function eachPart(name: CslName, change: (text: string) => string): CslName | undefined {
  const next: CslName = { ...name };
  for (const part of parts) {
    if (!next[part]) continue;
    const text = change(next[part]);
    if (text) next[part] = text;
    else delete next[part];
  }
  return next.family || next.given || next.literal ? next : undefined;
}
const anyPart = (name: CslName, is: (text: string) => boolean) =>
  parts.some((part) => name[part] !== undefined && is(name[part]));

const isShouted = (text: string) => /\p{Lu}{3,}/u.test(text) && text === text.toUpperCase();
const lowered = (text: string) =>
  text
    .toLowerCase()
    .replace(/(?<![\p{L}\p{M}’'])\p{L}|(?<=\b(?:mc|o[’']))\p{L}/gu, (letter) => letter.toUpperCase());

const ROLE = /\s{0,3}[([]\s{0,3}(?:ed|eds|editor|editors|hrsg|hg|dir|éd)\.?\s{0,3}[)\]]\s{0,3}$/iu;
const INITIALS = /^(?:\p{Lu}\.[\s-]?){1,4}$/u;

const RULES: Rule[] = [
  {
    check: 'name-etal',
    pencil: 'red',
    message: '“et al.” stands as a name',
    label: 'Take it out',
    has: (n) => anyPart(n, (t) => /(?:^|[\s,])(?:et\s+al|and\s+others|u\.\s?a)\.?$/i.test(t)),
    mend: (n) => eachPart(n, (t) => t.replace(/[\s,]{0,3}(?:\bet\s+al|\band\s+others|\bu\.\s?a)\.?$/i, '')),
  },
  {
    check: 'name-by',
    pencil: 'red',
    message: '“By” stands before a name',
    label: 'Take it off',
    has: (n) => /^(?:[Bb]y|par)\s+\p{Lu}/u.test(n.given ?? n.literal ?? ''),
    mend: (n) => (n.literal ? parseName(n.literal) : eachPart(n, (t) => t.replace(/^(?:by|par)\s+/i, ''))),
  },
  {
    check: 'name-degree',
    pencil: 'red',
    message: 'A title or degree stands with a name',
    label: 'Take it off',
    has: (n) => anyPart(n, hasDegree),
    mend: (n) => eachPart(n, withoutDegree),
  },
  {
    check: 'name-role',
    pencil: 'red',
    message: '“ed.” stands with a name among the authors',
    has: (n) => anyPart(n, (t) => ROLE.test(t)),
  },
  {
    check: 'name-address',
    pencil: 'red',
    message: 'A name with an address or a number in it',
    has: (n) =>
      anyPart(n, (t) => /@|https?:|www\./.test(t)) ||
      (anyPart(n, (t) => /\d{3,}/.test(t)) && !looksInstitutional(nameText(n))),
  },
  {
    check: 'name-unsplit',
    pencil: 'red',
    message: 'Several names stand in one',
    label: 'Part them',
    has: (n) => several(n) !== undefined,
    mend: (n) => several(n) ?? n,
  },
  {
    check: 'name-capitals',
    pencil: 'red',
    message: 'A name in capitals',
    label: 'Lower the capitals',
    has: (n) =>
      isShouted(n.family ?? '') ||
      (isShouted(n.literal ?? '') && (n.literal ?? '').split(' ').some((w) => w.length > 5)),
    mend: (n) => eachPart(n, (t) => (isShouted(t) ? lowered(t) : t)),
  },
  {
    check: 'name-institution',
    pencil: 'red',
    message: 'An institution is split as if it were a person',
    label: 'Keep it whole',
    has: (n) =>
      Boolean(n.given && n.family) &&
      !INITIALS.test(n.given!) &&
      /\b(?:university|institute|council|committee|department|ministry|agency|association|commission|museum|library|universität|université|gmbh|ltd)\b/i.test(
        `${n.given} ${n.family}`,
      ),
    mend: ({ given, family, 'non-dropping-particle': particle }) => ({
      literal: [given, particle, family].filter(Boolean).join(' '),
    }),
  },
  {
    check: 'name-swapped',
    pencil: 'blue',
    message: 'Family name and given name may be swapped',
    label: 'Swap them',
    has: (n) => INITIALS.test(n.family ?? '') && /^\p{Lu}\p{Ll}{2,}/u.test(n.given ?? ''),
    mend: (n) => ({ ...n, family: n.given, given: n.family }),
  },
  {
    check: 'name-whole',
    pencil: 'blue',
    message: 'A person’s name is not split',
    label: 'Split it',
    has: (n) => {
      if (!n.literal || looksInstitutional(n.literal) || n.literal.length > 60) return false;
      return (
        /^\p{Lu}[\p{L}’'-]+,\s+\p{Lu}[\p{L}.’'\s-]*$/u.test(n.literal) ||
        /^(?:\p{Lu}\.\s?){1,3}\s*\p{Lu}[\p{L}’'-]+$/u.test(n.literal)
      );
    },
    mend: (n) => parseName(n.literal!) ?? n,
  },
  {
    check: 'name-part',
    pencil: 'blue',
    message: 'A name with one part only',
    has: (n) =>
      !n.literal &&
      !(n.given && n.family) &&
      !/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Script=Arabic}]/u.test(
        n.family ?? n.given ?? '',
      ),
  },
];

/** The names that stand in one, where a mark says that there are several. */
function several(name: CslName): CslName[] | undefined {
  const text = name.literal ?? (name.given ? '' : name.family) ?? '';
  const split = name.given && name.family ? `${name.given} ${name.family}` : text;
  if (split.length > 600 || !/;|\s(?:and|und|et|&)\s/u.test(split)) return undefined;
  if (looksInstitutional(split) || /&\s*(?:Co|Sons|Söhne)\b/.test(split)) return undefined;
  const names = parseNames(split);
  return names.length > 1 && names.every((n) => n.family && n.given) ? names : undefined;
}

const nth = (n: number, of: number) => (of === 1 ? '' : ` (number ${n + 1})`);

/** What is wrong with the names of a record, role by role, each with the whole list mended. */
const names: Check = (record) => {
  const found: Finding[] = [];
  // Before families had names, people had one.
  const early = (yearOf(record.issued) ?? 2000) < 1500;
  for (const { role, names: list } of creatorsOf(record)) {
    const all = list as CslName[];
    for (const { check, pencil, message, label, has, mend } of RULES) {
      const at = all.findIndex(has);
      if (at === -1 || (early && check === 'name-part')) continue;
      const mended = mend && all.flatMap((name) => (has(name) ? (mend(name) ?? []) : [name]));
      const works = mended && !sameValue(mended, all);
      const who = `${nameText(all[at]!).slice(0, 80)}${nth(at, all.length)}`;
      found.push({
        check: role === 'author' ? check : `${check}:${role}`,
        pencil,
        field: role,
        message: `${message}: ${who}`,
        ...(works ? { fix: { label: label!, edit: { [role]: mended.length ? mended : null } } } : {}),
      });
    }
  }
  return found;
};

/** Somebody who is named twice among the same. */
const nameTwice: Check = (record) =>
  creatorsOf(record).flatMap(({ role, names: list }): Finding[] => {
    if (list.length < 2 || list.length > 200) return [];
    const kept: CslName[] = [];
    for (const name of list) {
      const whole = nameText(name);
      if (!kept.some((one) => nameText(one) === whole)) kept.push(name);
    }
    return kept.length === list.length
      ? []
      : [
          {
            check: role === 'author' ? 'name-twice' : `name-twice:${role}`,
            pencil: 'red',
            field: role,
            message: 'Somebody is named twice',
            fix: { label: 'Name each once', edit: { [role]: kept } },
          },
        ];
  });

/** Editors that a page lists as authors: said with their names, or named as both. */
const editorAsAuthor: Check = (record) => {
  const { author = [], editor = [] } = record;
  const said = author.filter((name) => parts.some((part) => ROLE.test(name[part] ?? '')));
  if (said.length) {
    const bare = said.flatMap((name) => eachPart(name, (t) => t.replace(ROLE, '')) ?? []);
    const rest = author.filter((name) => !said.includes(name));
    return [
      {
        check: 'editor-as-author',
        pencil: 'red',
        field: 'author',
        message: 'An editor stands among the authors',
        fix: {
          label: 'Make them editors',
          edit: { author: rest.length ? rest : null, editor: [...editor, ...bare] },
        },
      },
    ];
  }
  const both = author.filter((a) => editor.some((e) => samePerson(a, e)));
  if (both.length === 0 || record.type === 'chapter' || record.type === 'paper-conference') return [];
  return [
    {
      check: 'editor-and-author',
      pencil: 'blue',
      field: 'editor',
      message: `${nameText(both[0]!)} is named as author and as editor`,
      ...(both.length === editor.length ? { fix: { label: 'Keep the author', edit: { editor: null } } } : {}),
    },
  ];
};

export const nameChecks: Check[] = [names, nameTwice, editorAsAuthor];
