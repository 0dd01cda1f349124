import { NAME_VARIABLES, type CslName, type SourceRecord } from '../../source';
import { compareTitles, completenessOfTitle, keyOfTitle, partsOfTitle, type TitleParts } from './containers';
import { DIFFERENCES, SURE, type Difference } from './differences';
import {
  comparePeople,
  completenessOfPerson,
  formOfName,
  isInstitution,
  keyOfPerson,
  nameOfForm,
  partsOfPerson,
  personText,
  type PersonParts,
} from './people';

export { DIFFERENCE_WORDS, type Difference } from './differences';
export { formOfName, nameOfForm } from './people';

/** What is written in several ways: the people and institutions of a record, and what its work stands in. */
export const SPELLED = ['person', 'container'] as const;
export type Spelled = (typeof SPELLED)[number];

/** One name as a record spells it. `form` tells it from every other spelling; `key` is shared by spellings that may be one. */
export interface Spelling {
  kind: Spelled;
  key: string;
  form: string;
}

/** Names of a record that are looked at: an experiment of thousands of authors is not gone through. */
const MOST_NAMES = 200;

const isKey = (key: string, kind: string) => key.startsWith(`${kind} `);

/** The names a record spells, each once. */
export function spellingsOf(record: SourceRecord): Spelling[] {
  const found = new Map<string, Spelling>();
  const add = (kind: Spelled, key: string, form: string) => found.set(`${key}\n${form}`, { kind, key, form });
  const names: CslName[] = NAME_VARIABLES.flatMap((role) => record[role] ?? []);
  for (const name of names.slice(0, MOST_NAMES)) {
    if (isInstitution(name)) {
      const parts = partsOfTitle(name.literal!);
      if (parts) add('person', keyOfTitle('institution', parts), formOfName(name));
      continue;
    }
    const parts = partsOfPerson(name);
    if (parts) add('person', keyOfPerson(parts), formOfName(name));
  }
  const title = record['container-title'];
  const parts = title === undefined ? undefined : partsOfTitle(title);
  if (title !== undefined && parts) {
    add('container', keyOfTitle('container', parts), title);
    for (const issn of issnsOf(record)) add('container', `issn ${issn}`, title);
  }
  return [...found.values()];
}

const issnsOf = (record: SourceRecord): string[] =>
  (record.ISSN ?? '')
    .toUpperCase()
    .match(/\d{4}-?\d{3}[\dX]/g)
    ?.map((issn) => issn.replace('-', ''))
    .slice(0, 4) ?? [];

/** An ISSN that more titles have than a journal has spellings is wrong in some of them. */
const MOST_OF_ONE_ISSN = 5;

/** Spellings that look like one name. */
export interface Proposal {
  /** The fullest first. */
  forms: string[];
  /** How they differ. */
  differences: Difference[];
  /** They differ in nothing that could tell two names apart. */
  sure: boolean;
}

/** Two forms in one string, whichever comes first. */
export const pairOfForms = (a: string, b: string): string => (a < b ? `${a}\n${b}` : `${b}\n${a}`);

interface Taken {
  form: string;
  full: number;
  person?: PersonParts;
  title?: TitleParts;
}

function taken(key: string, form: string): Taken {
  if (isKey(key, 'person')) {
    const person = partsOfPerson(nameOfForm(form));
    return person ? { form, person, full: completenessOfPerson(person) } : { form, full: 0 };
  }
  const title = partsOfTitle(isKey(key, 'institution') ? (nameOfForm(form).literal ?? '') : form);
  return title ? { form, title, full: completenessOfTitle(title) } : { form, full: 0 };
}

function compared(key: string, a: Taken, b: Taken): Difference[] | undefined {
  if (a.person && b.person) return comparePeople(a.person, b.person);
  if (!a.title || !b.title) return undefined;
  return compareTitles(a.title, b.title) ?? (isKey(key, 'issn') ? ['issn'] : undefined);
}

/** Marks that are there and capitals that do not shout make the better of two spellings that are as full. */
const care = (form: string): number =>
  (/[^ -~]/.test(form) ? 2 : 0) + (/\p{Ll}/u.test(form.replace(/"[\w-]+",/g, '')) ? 1 : 0);

/** Spellings held together, and how those of one differ from those of the others. */
interface Held {
  members: Taken[];
  differences: Set<Difference>;
}

/** How every spelling of one bundle differs from every one of another; nothing when two of them do not fit. */
function between(
  a: Held,
  b: Held,
  differ: (a: Taken, b: Taken) => Difference[] | undefined,
): Difference[] | undefined {
  const all: Difference[] = [];
  for (const x of a.members)
    for (const y of b.members) {
      const found = differ(x, y);
      if (!found) return undefined;
      all.push(...found);
    }
  return all;
}

/** Joins bundles, the fullest first: one goes to those it fits with wholly, if they are one and `enough` says so. */
function joined(
  bundles: readonly Held[],
  differ: (a: Taken, b: Taken) => Difference[] | undefined,
  enough: (differences: Difference[]) => boolean,
): Held[] {
  const groups: Held[] = [];
  for (const one of bundles) {
    const fitting = groups.flatMap((group) => {
      const differences = between(group, one, differ);
      return differences && enough(differences) ? [{ group, differences }] : [];
    });
    if (fitting.length !== 1) {
      groups.push({ members: [...one.members], differences: new Set(one.differences) });
      continue;
    }
    const [{ group, differences }] = fitting as [(typeof fitting)[0]];
    group.members.push(...one.members);
    for (const difference of [...one.differences, ...differences]) group.differences.add(difference);
  }
  return groups;
}

const nothingTelling = (differences: Iterable<Difference>): boolean =>
  [...differences].every((d) => SURE.has(d));

/**
 * Which of the spellings that share a key look like one name. Those that differ in nothing but marks are held together first;
 * then what is left joins those it fits with all of, and what fits two names that do not fit each other (`A. Müller` where
 * there are Anna and Andreas) joins neither. `apart` has the pairs said to be two names, as `pairOfForms` gives them. The
 * order in which spellings are given has no effect.
 */
export function proposeSpellings(
  key: string,
  forms: readonly string[],
  apart: ReadonlySet<string> = new Set(),
): Proposal[] {
  const differ = (a: Taken, b: Taken) =>
    apart.has(pairOfForms(a.form, b.form)) ? undefined : compared(key, a, b);
  const all = forms
    .map((form) => taken(key, form))
    .sort(
      (a, b) =>
        b.full - a.full ||
        care(b.form) - care(a.form) ||
        b.form.length - a.form.length ||
        (a.form < b.form ? -1 : 1),
    )
    .map((one): Held => ({ members: [one], differences: new Set() }));
  const groups = joined(joined(all, differ, nothingTelling), differ, () => true);
  return groups
    .filter(({ members }) => members.length > 1)
    .filter(
      ({ members }) => !isKey(key, 'issn') || (members.length <= MOST_OF_ONE_ISSN && !sharedKey(members)),
    )
    .map(({ members, differences }) => ({
      forms: members.map((m) => m.form),
      differences: DIFFERENCES.filter((d) => differences.has(d)),
      sure: nothingTelling(differences),
    }));
}

/** Whether spellings that share an ISSN are found by their words as well: they are proposed there. */
const sharedKey = (members: readonly Taken[]): boolean =>
  new Set(members.map(({ title }) => title && keyOfTitle('container', title))).size === 1 &&
  members.every((a) => members.every((b) => a === b || compareTitles(a.title!, b.title!) !== undefined));

/** A form as it is shown. */
export const textOfForm = (kind: Spelled, form: string): string =>
  kind === 'person' ? personText(form) : form;

/** The fields of a record in which some spellings become one, as they are then; none when the record has none of them. */
export function respelled(
  record: SourceRecord,
  kind: Spelled,
  forms: ReadonlySet<string>,
  to: string,
): Record<string, unknown> {
  if (kind === 'container') {
    const title = record['container-title'];
    return title !== undefined && title !== to && forms.has(title) ? { 'container-title': to } : {};
  }
  const name = nameOfForm(to);
  const fields: Record<string, unknown> = {};
  for (const role of NAME_VARIABLES) {
    const names = record[role];
    const after = names?.map((n) => (forms.has(formOfName(n)) ? name : n));
    if (after && names && after.some((n, i) => n !== names[i] && formOfName(n) !== formOfName(names[i]!)))
      fields[role] = after;
  }
  return fields;
}
