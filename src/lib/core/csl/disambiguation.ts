import { INITIALS_ALONE, nameKeys } from './names';

import { textOf } from './pieces';
import { openScope, SUBSEQUENT, type LevelOf, type Levels, type NameList, type Scope } from './scope';
import type { Entry, Registry } from './registry';
import type { CompiledStyle } from './style';

/** What tells a work apart from others. CSL 1.0.2, "Disambiguation". */
export interface Told {
  levels?: Levels | undefined;
  levelOf?: LevelOf | undefined;
  /** How many conditions on this are met, in the order they are asked. */
  condition: number;
  yearSuffix?: string | undefined;
}

/** a, b … z, aa, ab … */
export function suffixOf(index: number): string {
  let text = '';
  for (let n = index; n >= 0; n = Math.floor(n / 26) - 1) text = String.fromCharCode(97 + (n % 26)) + text;
  return text;
}

/** A citation as it is compared. */
export interface Printed {
  text: string;
  lists: NameList[];
}

/** A work’s citation as it is told apart: as a later mention nearby, where styles say least, without letter or place. */
function printed(style: CompiledStyle, entry: Entry, told: Told): Printed {
  const scope: Scope = openScope(entry.item, style.setting, 'citation', {
    number: entry.number,
    comparing: true,
    position: SUBSEQUENT,
    nearNote: true,
    conditions: told.condition,
    levels: told.levels,
    levelOf: told.levelOf,
  });
  const text = style.citation.print(scope).map(textOf).join('\u0001');
  return { text, lists: scope.lists };
}

/** Groups of more than one, in the order of their first. */
function groupsOf<T>(all: T[], keyOf: (of: T) => string): T[][] {
  const groups = new Map<string, T[]>();
  for (const one of all) {
    const key = keyOf(one);
    const group = groups.get(key);
    if (group) group.push(one);
    else groups.set(key, [one]);
  }
  return [...groups.values()];
}

/** How far each given name must be told for no two people to look alike, over all names of all works. */
function globalLevels(style: CompiledStyle, all: Candidate[]): LevelOf {
  const rule = style.addGiven!;
  const primary = rule.startsWith('primary');
  const onlyInitials = rule.endsWith('with-initials');
  const families = new Map<string, Map<string, Set<string>>>();
  for (const { lists } of all)
    for (const list of primary ? lists.slice(0, 1) : lists)
      for (const name of primary ? list.names.slice(0, 1) : list.names) {
        const [family, initial, full] = nameKeys(name);
        const known = families.get(family) ?? new Map<string, Set<string>>();
        families.set(family, known);
        known.set(initial, (known.get(initial) ?? new Set()).add(full));
      }
  /** Of a whole name: whether its initials are nobody else’s of the family; nothing when nobody else has the family name. */
  const alone = new Map<string, boolean>();
  for (const byInitials of families.values()) {
    const people = [...byInitials.values()].reduce((n, s) => n + s.size, 0);
    if (people < 2) continue;
    for (const fulls of byInitials.values()) for (const full of fulls) alone.set(full, fulls.size === 1);
  }
  return (name, _list, _index, { initials, short }) => {
    const initialsDo = alone.get(nameKeys(name)[2]);
    if (initialsDo === undefined) return 0;
    if (onlyInitials) return initialsDo && short ? (initials ? 1 : INITIALS_ALONE) : 0;
    if (!initials) return 2;
    return initialsDo ? (short ? 1 : 0) : 2;
  };
}

interface Candidate {
  entry: Entry;
  told: Told;
  text: string;
  lists: NameList[];
}

/** Tells the works of a registry apart, in the order CSL 1.0.2, "Disambiguation" lists its methods. */
export function disambiguate(registry: Registry): void {
  const { style, order } = registry;
  const { addNames, addGiven, addYearSuffix, usesDisambiguate } = style;
  for (const entry of order) entry.told = { condition: 0 };
  if (!addNames && !addGiven && !addYearSuffix && !usesDisambiguate) return;
  let all: Candidate[] = order.map((entry) => ({
    entry,
    told: entry.told,
    ...(style.printsNumber
      ? printed(style, entry, entry.told)
      : (entry.base ??= printed(style, entry, entry.told))),
  }));
  if (addGiven && addGiven !== 'by-cite') {
    const levelOf = globalLevels(style, all);
    const primary = addGiven.startsWith('primary');
    all = all.map((c) => {
      const { entry } = c;
      entry.told.levelOf = primary
        ? (name, list, index, as) => (list === 0 && index === 0 ? levelOf(name, list, index, as) : 0)
        : levelOf;
      const further = c.lists.some((list, l) =>
        list.names.some(
          (name, i) =>
            entry.told.levelOf!(name, l, i, { initials: list.initials, short: list.form === 'short' }) > 0,
        ),
      );
      return further
        ? { entry, told: entry.told, ...printed(style, entry, entry.told) }
        : { ...c, told: entry.told };
    });
  }
  for (const group of groupsOf(all, (c) => c.text)) {
    if (group.length < 2) continue;
    tellApart(style, group);
  }
}

function apply(style: CompiledStyle, c: Candidate, change: Partial<Told>): Candidate {
  const told: Told = { ...c.told, ...change };
  return { entry: c.entry, told, ...printed(style, c.entry, told) };
}

function tellApart(style: CompiledStyle, group: Candidate[]): void {
  let classes: Candidate[][] = [group];
  if (style.addNames || style.addGiven === 'by-cite') classes = byNames(style, group);
  if (style.usesDisambiguate) classes = classes.flatMap((c) => byCondition(style, c));
  for (const c of classes) for (const one of c) one.entry.told = one.told;
  if (!style.addYearSuffix) return;
  for (const c of classes) {
    if (c.length < 2) continue;
    const inOrder = [...c].sort((a, b) => a.entry.number - b.entry.number);
    inOrder.forEach((one, i) => (one.entry.told = { ...one.told, yearSuffix: suffixOf(i) }));
  }
}

const MOST_CONDITIONS = 8;

/** Lets one more condition be met for works that print alike, as long as that tells some of them apart. */
function byCondition(style: CompiledStyle, group: Candidate[], met = 1): Candidate[][] {
  if (group.length < 2) return [group];
  const classes = groupsOf(
    group.map((c) => apply(style, c, { condition: met })),
    (c) => c.text,
  );
  if (classes.length < 2 || met >= MOST_CONDITIONS) return classes;
  return classes.flatMap((c) => byCondition(style, c, met + 1));
}

/** A try at a class: names shown, and how far given names are told, of each list. */
interface Try {
  show: number[] | undefined;
  given: number[][];
}

/**
 * Tells works apart that print alike, name by name: names that are hidden are shown, and given names told further, each
 * kept only where it leaves a work among fewer others. CSL 1.0.2, "Disambiguation", its first two methods.
 */
function byNames(style: CompiledStyle, group: Candidate[]): Candidate[][] {
  const lists = Math.max(0, ...group.map((c) => c.lists.length));
  const baseShown = (c: Candidate, list: number) => c.lists[list]?.shown ?? 0;
  const longest = (list: number) => Math.max(0, ...group.map((c) => c.lists[list]?.names.length ?? 0));
  const given = style.addGiven === 'by-cite';
  // What is tried, in order: which name of which list, and what of it.
  const steps: { list: number; name: number; what: 'show' | 1 | 2 }[] = [];
  const tell = (list: number, name: number) => {
    if (given) steps.push({ list, name, what: 1 }, { list, name, what: 2 });
  };
  for (let list = 0; list < lists; list++) {
    const shown = Math.min(...group.map((c) => (c.lists[list] ? baseShown(c, list) : Infinity)));
    if (style.addNames)
      for (let name = shown; name < longest(list); name++) {
        steps.push({ list, name, what: 'show' });
        tell(list, name);
      }
    for (let name = 0; name < (style.addNames ? Math.min(shown, longest(list)) : longest(list)); name++)
      tell(list, name);
  }
  const originals = new Map(group.map((c) => [c.entry, c]));
  const run = (members: Candidate[], from: number, now: Try, best: Candidate[]): Candidate[][] => {
    if (members.length < 2) return [best];
    for (let s = from; s < steps.length; s++) {
      const { list, name, what } = steps[s]!;
      // Where a list writes no initials, a given name is told whole or not at all.
      if (what === 1 && members.every((m) => m.lists[list]?.initials !== true)) continue;
      const next: Try = { show: now.show ? [...now.show] : undefined, given: now.given.map((g) => [...g]) };
      if (what === 'show') {
        next.show ??= [];
        next.show[list] = name + 1;
      } else {
        (next.given[list] ??= [])[name] = what;
      }
      const tried = members.map((m) =>
        apply(style, originals.get(m.entry)!, { levels: levelsOf(next, lists) }),
      );
      const classes = groupsOf(tried, (c) => c.text);
      if (classes.length > 1) return classes.flatMap((c) => run(c, s + 1, next, c));
      // A name that is shown stays shown while the next is tried; a given name that did not help is told no further.
      if (what === 'show') now = next;
    }
    return [best];
  };
  return run(group, 0, { show: undefined, given: [] }, group);
}

const levelsOf = (of: Try, lists: number): Levels => ({
  show: Array.from({ length: lists }, (_, i) => of.show?.[i]),
  given: Array.from({ length: lists }, (_, i) =>
    of.given[i] ? Array.from(of.given[i], (g) => g ?? 0) : undefined,
  ),
});
