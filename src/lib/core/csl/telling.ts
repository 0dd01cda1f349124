import { citationNodes } from './citations';
import { NOTHING_TOLD, tells } from './disambiguation';
import type { NameValue } from './item';
import { nameKeys } from './names';
import { textOf, piece, type Node } from './pieces';
import type { Entry, Registry } from './registry';
import { LATER_PLACE } from './positions';
import type { NameList } from './scope';

/** A person whose given name is told, and people of other works, or of this one, whose names would look the same. */
export interface GivenTold {
  name: NameValue;
  /** Some of them. */
  others: NameValue[];
  /** How many others there are in all. */
  many: number;
}

/** What tells a work apart from others, by the options of the style that ask for it. CSL 1.0.2, "Disambiguation". */
export interface Telling {
  entry: Entry;
  /** Its citation as it would print with nothing to tell it apart, and as it prints: alone, as a later mention where those print otherwise. */
  alone: Node[];
  now: Node[];
  /** How many of its names are shown where fewer would be otherwise: `disambiguate-add-names`. */
  names: number | undefined;
  /** Whose given names are told further: `disambiguate-add-givenname`. */
  given: GivenTold[];
  /** A branch for works that print alike is taken: `disambiguate="true"`. */
  branch: boolean;
  /** The letter behind its year: `disambiguate-add-year-suffix`. */
  letter: string | undefined;
  /** How many others are cited in the same words all the same. */
  still: number;
}

/** How many others a person is told apart from are named. */
const NAMED = 3;

/**
 * The works of a registry that would be cited in the same words, group by group, with what tells each apart; a group of one
 * holds a work whose people alone are told apart from those of others. In the order of the list. Nothing of a style that
 * tells nothing apart.
 */
export function tellingsOf(registry: Registry): Telling[][] {
  if (!tells(registry.style)) return [];
  const groups: Entry[][] = [];
  const byGroup = new Map<Set<Entry>, Entry[]>();
  for (const entry of registry.order) {
    const alike = registry.alike.get(entry.alone!.text)!;
    if (alike.size < 2) {
      if (entry.alone !== entry.base) groups.push([entry]);
      continue;
    }
    const group = byGroup.get(alike);
    if (group) group.push(entry);
    else {
      const first = [entry];
      byGroup.set(alike, first);
      groups.push(first);
    }
  }
  return groups.map((group) => {
    const places = placesIn(group);
    const printed = group.map((entry) => tellingOf(registry, entry, places));
    const words = printed.map(({ now }) => textOf(piece(now)));
    const same = new Map<string, number>();
    for (const text of words) same.set(text, (same.get(text) ?? 0) + 1);
    return printed.map((one, i) => ({ ...one, still: same.get(words[i]!)! - 1 }));
  });
}

function tellingOf(registry: Registry, entry: Entry, places: Places): Omit<Telling, 'still'> {
  const { told, base, item } = entry;
  const plain: Registry = { ...registry, entries: new Map([[item.id, { ...entry, told: NOTHING_TOLD }]]) };
  const lists = base!.lists;
  const as = registry.style.asksPosition ? [LATER_PLACE] : [];
  const shownOf = (list: number) =>
    Math.min(lists[list]!.names.length, Math.max(lists[list]!.shown, told.levels?.show?.[list] ?? 0));
  const more = lists.findIndex((list, i) => shownOf(i) > list.shown);
  return {
    entry,
    alone: citationNodes(plain, [{ id: item.id }], as),
    now: citationNodes(registry, [{ id: item.id }], as),
    names: more < 0 ? undefined : shownOf(more),
    given: givenTold(registry, entry, lists, shownOf, places),
    branch: told.condition > 0,
    letter: told.yearSuffix,
  };
}

/** Of works that print alike, the people that stand in each place of their lists of names, each once. */
type Places = (list: number, index: number) => Map<string, NameValue>;

function placesIn(group: Entry[]): Places {
  const known = new Map<string, Map<string, NameValue>>();
  return (list, index) => {
    const key = `${list} ${index}`;
    let people = known.get(key);
    if (!people) {
      known.set(key, (people = new Map()));
      for (const entry of group) {
        const name = entry.base!.lists[list]?.names[index];
        if (name) people.set(nameKeys(name)[2], name);
      }
    }
    return people;
  };
}

/** The people of one family name in all works of a registry: some of them, one of which may be the one that is told. */
function* family({ people }: Registry, of: string): Generator<NameValue> {
  for (const fulls of people.families.get(of)!.byInitials.values())
    for (const full of fulls) {
      const [entry] = people.works.get(full)!;
      const names = entry!.base!.lists.flatMap((list) => list.names);
      yield names.find((name) => nameKeys(name)[2] === full)!;
    }
}

/** The people of a work whose given names are told, each once. */
function givenTold(
  registry: Registry,
  { told }: Entry,
  lists: NameList[],
  shownOf: (list: number) => number,
  places: Places,
): GivenTold[] {
  const found = new Map<string, GivenTold>();
  lists.forEach((list, l) =>
    list.names.slice(0, shownOf(l)).forEach((name, i) => {
      const overAll = told.levelOf !== undefined && told.levelOf(name, l, i, list.as) > 0;
      if (!overAll && !told.levels?.given?.[l]?.[i]) return;
      const [of, , full] = nameKeys(name);
      if (found.has(full)) return;
      const here = places(l, i);
      const others: NameValue[] = [];
      for (const other of overAll ? family(registry, of) : here.values()) {
        if (nameKeys(other)[2] !== full) others.push(other);
        if (others.length === NAMED) break;
      }
      const many = (overAll ? registry.people.families.get(of)!.people : here.size) - 1;
      found.set(full, { name, others, many });
    }),
  );
  return [...found.values()];
}
