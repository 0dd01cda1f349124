import { sameName } from './names';
import { join, leave, type People } from './people';
import { textOf } from './pieces';
import { FIRST_PLACE, LATER_PLACE } from './positions';
import { openScope, type LevelOf, type Levels, type NameList, type Scope } from './scope';
import type { Entry, Registry } from './registry';
import type { CompiledStyle } from './style';

/** What tells a work apart from others. CSL 1.0.2, "Disambiguation". */
export interface Told {
  /** In mentions of it; where first mentions say more than later ones, in the later ones. */
  levels?: Levels | undefined;
  /** In its first mention and in the list: nothing where a first mention tells it from the others without. */
  atFirst?: Levels | undefined;
  levelOf?: LevelOf | undefined;
  /** How many conditions on this are met, in the order they are asked. */
  condition: number;
  yearSuffix?: string | undefined;
}

export const NOTHING_TOLD: Told = { condition: 0 };

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

/** A work’s citation as it is told apart, as a later mention or the first, without letter or locator. */
function printed(style: CompiledStyle, entry: Entry, told: Told, place = LATER_PLACE): Printed {
  const scope: Scope = openScope(entry.item, style.setting, 'citation', {
    number: entry.number,
    comparing: true,
    ...place,
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

interface Candidate extends Printed {
  entry: Entry;
  told: Told;
}

const sameLevels = (a: Levels | undefined, b: Levels | undefined) =>
  a === b || JSON.stringify(a) === JSON.stringify(b);

const sameTold = (a: Told, b: Told) =>
  a === b ||
  (a.yearSuffix === b.yearSuffix &&
    a.condition === b.condition &&
    sameLevels(a.levels, b.levels) &&
    sameLevels(a.atFirst, b.atFirst));

/** Whether a style tells works apart at all. */
export const tells = ({ addNames, addGiven, addYearSuffix, usesDisambiguate }: CompiledStyle): boolean =>
  addNames || addGiven !== undefined || addYearSuffix || usesDisambiguate;

/** Whether a given name that prints in a list is told further for all works: names that are hidden print none. */
function toldFurther(people: People, { names, shown, as }: NameList, list: number): boolean {
  const last = names.length - 1;
  for (let i = 0; i <= last; i++)
    if ((i < shown || i === last) && people.levelOf(names[i]!, list, i, as) > 0) return true;
  return false;
}

/**
 * Tells the works of a registry apart, in the order CSL 1.0.2, "Disambiguation" lists its methods: those that came, and of
 * those that were there the ones that print as one of them does, or as one that left did, or share a name with it. With
 * `reordered`, all of them once more, whose order may give them other letters.
 */
export function disambiguate(registry: Registry, came: Entry[], left: Entry[], reordered = false): void {
  const { style, people, alike } = registry;
  const rule = style.addGiven === 'by-cite' ? undefined : style.addGiven;
  const plain: Told = rule ? { condition: 0, levelOf: people.levelOf } : NOTHING_TOLD;
  const concerned = new Set(came);
  for (const entry of came) {
    entry.base ??= printed(style, entry, NOTHING_TOLD);
    if (rule) for (const other of join(people, entry, entry.base.lists, rule)) concerned.add(other);
  }
  for (const entry of left)
    if (rule) for (const other of leave(people, entry, entry.base!.lists, rule)) concerned.add(other);
  const groups = new Set<string>(reordered ? alike.keys() : []);
  for (const entry of left) {
    concerned.delete(entry);
    alike.get(entry.alone!.text)?.delete(entry);
    groups.add(entry.alone!.text);
  }
  for (const entry of concerned) {
    const base = entry.base!;
    const further = rule !== undefined && base.lists.some((list, l) => toldFurther(people, list, l));
    const alone = further ? printed(style, entry, plain) : base;
    const before = entry.alone?.text;
    if (before !== undefined && before !== alone.text) {
      alike.get(before)?.delete(entry);
      groups.add(before);
    }
    entry.alone = alone;
    const group = alike.get(alone.text);
    if (group) group.add(entry);
    else alike.set(alone.text, new Set([entry]));
    groups.add(alone.text);
    entry.stamp = ++registry.clock;
  }
  for (const text of groups) {
    const group = alike.get(text);
    if (!group?.size) {
      alike.delete(text);
      continue;
    }
    const members = [...group].sort((a, b) => a.number - b.number);
    const before = members.map((entry) => entry.told);
    for (const entry of members) entry.told = plain;
    if (members.length > 1)
      tellApart(
        style,
        members.map((entry) => ({ entry, told: entry.told, ...entry.alone! })),
      );
    members.forEach((entry, i) => {
      if (!sameTold(before[i]!, entry.told)) entry.stamp = ++registry.clock;
    });
  }
}

function apply(style: CompiledStyle, c: Candidate, change: Partial<Told>): Candidate {
  const told: Told = { ...c.told, ...change };
  return { entry: c.entry, told, ...printed(style, c.entry, told) };
}

function tellApart(style: CompiledStyle, group: Candidate[]): void {
  let classes: Candidate[][] = [group];
  if (style.addNames || style.addGiven === 'by-cite') classes = byNames(style, group);
  // Where letters tell works apart, they do so without it. Common practice, which citeproc-js and pandoc share.
  if (style.usesDisambiguate && !style.addYearSuffix) classes = classes.flatMap((c) => byCondition(style, c));
  for (const c of classes) for (const one of c) one.entry.told = { ...one.told, atFirst: one.told.levels };
  if (style.asksPosition) tellAtFirst(style, classes.flat());
  if (!style.addYearSuffix) return;
  for (const c of classes) {
    if (c.length < 2) continue;
    const inOrder = [...c].sort((a, b) => a.entry.number - b.entry.number);
    inOrder.forEach(({ entry }, i) => (entry.told = { ...entry.told, yearSuffix: suffixOf(i) }));
  }
}

/** Names that tell works apart in later mentions stay as the style has them in first ones, where they tell none apart. */
function tellAtFirst(style: CompiledStyle, all: Candidate[]): void {
  if (!all.some(({ told }) => told.levels)) return;
  // Names tell works apart before a condition does.
  const textAtFirst = ({ entry, told }: Candidate, levels?: Levels) =>
    printed(style, entry, { ...told, condition: 0, levels }, FIRST_PLACE).text;
  for (const group of groupsOf(all, (one) => textAtFirst(one))) {
    const texts = new Set(group.map((one) => textAtFirst(one, one.told.levels)));
    if (texts.size === 1) for (const { entry } of group) entry.told = { ...entry.told, atFirst: undefined };
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

/** Whether works have as many lists of names, each written alike and with as many names. */
function alikeInForm([first, ...others]: Candidate[]): boolean {
  const { lists } = first!;
  return others.every(
    (other) =>
      other.lists.length === lists.length &&
      other.lists.every((list, l) => {
        const { as, lang, names } = lists[l]!;
        return list.as === as && list.lang === lang && list.names.length === names.length;
      }),
  );
}

/** Whether all works have the same name at a place of a list. */
function sharedAt([first, ...others]: Candidate[], list: number, name: number): boolean {
  const one = first!.lists[list]?.names[name];
  return one !== undefined && others.every((other) => sameName(one, other.lists[list]!.names[name]!));
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
    const comparable = alikeInForm(members);
    for (let s = from; s < steps.length; s++) {
      const { list, name, what } = steps[s]!;
      // Where a list writes no initials, a given name is told whole or not at all.
      if (what === 1 && members.every((m) => m.lists[list]?.as.initials !== true)) continue;
      // Somebody who is in all of them tells none apart.
      const inAll = comparable && sharedAt(members, list, name);
      if (inAll && what !== 'show') continue;
      const next: Try = { show: now.show ? [...now.show] : undefined, given: now.given.map((g) => [...g]) };
      if (what === 'show') {
        next.show ??= [];
        next.show[list] = name + 1;
      } else {
        (next.given[list] ??= [])[name] = what;
      }
      if (inAll) {
        now = next;
        continue;
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
