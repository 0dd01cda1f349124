import type { NameValue } from './item';
import { INITIALS_ALONE, nameKeys } from './names';
import type { Entry } from './registry';
import type { LevelOf, NameList } from './scope';
import type { GivenRule } from './style';

/** All of one family name: how many people there are, and whole names by their initials. */
interface Family {
  people: number;
  byInitials: Map<string, Set<string>>;
}

/**
 * The people of all works of a list, by which given names are told as far as no two people look alike. CSL 1.0.2,
 * "Disambiguation", `givenname-disambiguation-rule` other than `by-cite`.
 */
export interface People {
  families: Map<string, Family>;
  /** The works a whole name stands in. */
  works: Map<string, Set<Entry>>;
  levelOf: LevelOf;
}

export function openPeople(rule: GivenRule | undefined): People {
  const families = new Map<string, Family>();
  const primary = rule?.startsWith('primary') === true;
  const onlyInitials = rule?.endsWith('with-initials') === true;
  const levelOf: LevelOf = (name, _list, index, { initials, short }) => {
    if (primary && index > 0) return 0;
    const keys = nameKeys(name);
    const family = families.get(keys[0]);
    if (!family || family.people < 2) return 0;
    const initialsDo = family.byInitials.get(keys[1])?.size === 1;
    if (onlyInitials) return initialsDo && short ? (initials ? 1 : INITIALS_ALONE) : 0;
    if (!initials) return 2;
    return initialsDo ? (short ? 1 : 0) : 2;
  };
  return { families, works: new Map(), levelOf };
}

/** The names of a work that are told apart over all works: with a rule of the first names, the first of each list. */
function namesOf(lists: NameList[], rule: GivenRule): NameValue[] {
  const primary = rule.startsWith('primary');
  return lists.flatMap(({ names }) => (primary ? names.slice(0, 1) : names));
}

/** Whole names whose telling changes where a name comes into a family or leaves it: `people` and `alike` count it. */
function* concerned(family: Family, initials: string): Generator<string> {
  if (family.people === 2) for (const fulls of family.byInitials.values()) yield* fulls;
  const alike = family.byInitials.get(initials)!;
  if (alike.size === 2) yield* alike;
}

/** Adds the names of a work; names the other works whose names are told otherwise from now on. */
export function join(people: People, entry: Entry, lists: NameList[], rule: GivenRule): Entry[] {
  const others: Entry[] = [];
  const names = namesOf(lists, rule);
  for (let i = 0; i < names.length; i++) {
    const { 0: key, 1: initials, 2: full } = nameKeys(names[i]!);
    const works = people.works.get(full);
    if (works) {
      works.add(entry);
      continue;
    }
    people.works.set(full, new Set([entry]));
    let family = people.families.get(key);
    if (!family) people.families.set(key, (family = { people: 0, byInitials: new Map() }));
    const alike = family.byInitials.get(initials);
    if (alike) alike.add(full);
    else family.byInitials.set(initials, new Set([full]));
    family.people++;
    for (const other of concerned(family, initials)) others.push(...people.works.get(other)!);
  }
  return others;
}

/** Takes the names of a work out; names the other works whose names are told otherwise from now on. */
export function leave(people: People, entry: Entry, lists: NameList[], rule: GivenRule): Entry[] {
  const others: Entry[] = [];
  for (const name of namesOf(lists, rule)) {
    const [key, initials, full] = nameKeys(name);
    const works = people.works.get(full);
    if (!works?.delete(entry) || works.size > 0) continue;
    const family = people.families.get(key)!;
    for (const other of concerned(family, initials))
      if (other !== full) others.push(...people.works.get(other)!);
    people.works.delete(full);
    const alike = family.byInitials.get(initials)!;
    alike.delete(full);
    if (alike.size === 0) family.byInitials.delete(initials);
    family.people--;
    if (family.people === 0) people.families.delete(key);
  }
  return others;
}
