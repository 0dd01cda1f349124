import { disambiguate, NOTHING_TOLD, tells, type Printed, type Told } from './disambiguation';
import type { Item } from './item';
import { openPeople, type People } from './people';
import type { Node, Piece } from './pieces';
import { FIRST, openScope, type Levels, type Scope } from './scope';
import type { Sorted } from './sorting';
import type { CompiledArea, CompiledStyle } from './style';

/** A work as the list knows it. */
export interface Entry extends Sorted {
  item: Item;
  /** In the order works came, from 0. */
  arrival: number;
  /** Its number in the list, from 1. */
  number: number;
  told: Told;
  /** Another whenever its item is, or what tells it apart: what was printed with the one before no longer holds. */
  stamp: number;
  /** Its citation as it is compared with others, before anything tells it apart. */
  base?: Printed;
  /** The same with given names told as far as all works ask. */
  alone?: Printed;
  /** What was printed of it in the list, and what that depended on. */
  printed?: { stamp: number; number: number; nodes: Node[]; names?: Names };
  /** Its mentions in citations, by what they depend on beside the work, as they were printed. */
  mentions?: { stamp: number; printed: Map<string, { number: number; nodes: Node[] }> };
  /** What stands in the list for what was printed, where its names repeat those of the entry before. */
  instead?: { of: Node[]; before: string[]; nodes: Node[] };
}

/** The first names of an entry: where they stand, and each as it prints with all of them at the end. */
export interface Names {
  found: Piece | undefined;
  texts: string[] | undefined;
}

/** The works of a document or a list, in order, told apart. */
export interface Registry {
  style: CompiledStyle;
  entries: Map<string, Entry>;
  /** The works it was made to hold, in the order they came. */
  given: Item[];
  /** In the order of the list. */
  order: Entry[];
  people: People;
  /** Works whose citations print the same words before they are told apart, by those words. */
  alike: Map<string, Set<Entry>>;
  /** Rises with each change, and stamps it. */
  clock: number;
}

export const openRegistry = (style: CompiledStyle): Registry => ({
  style,
  entries: new Map(),
  given: [],
  order: [],
  people: openPeople(style.addGiven),
  alike: new Map(),
  clock: 0,
});

/** The scope a work is printed in, first mentioned and with what tells it apart. */
export function scopeOf(
  registry: Registry,
  entry: Entry,
  area: Scope['area'],
  rest: Partial<Scope> = {},
): Scope {
  const { told } = entry;
  const { position = FIRST } = rest;
  const levels = position === FIRST ? told.atFirst : told.levels;
  return openScope(entry.item, registry.style.setting, area, {
    number: entry.number,
    yearSuffix: told.yearSuffix,
    conditions: told.condition,
    levels: area === 'citation' ? levels : ofFirstNames(levels),
    levelOf: told.levelOf,
    ...rest,
  });
}

/** In the list, the first names show as many as the citations do, and where they are short are told as far. */
const ofFirstNames = (levels: Levels | undefined): Levels | undefined =>
  levels && { show: [levels.show?.[0]], given: [levels.given?.[0]] };

/** How many may come into a list, as a part of it, to be put in their places one by one. */
const FEW = 1 / 8;

/**
 * Makes a registry hold these works: sorted as the style sorts its list, numbered, and told apart. With `sorted` off they
 * stay in the order they come. What has to do with none that came, left or changed stays as it is.
 * Holds nothing when one of them cannot be printed, and throws why.
 */
export function setItems(registry: Registry, items: Item[], sorted = true): void {
  try {
    hold(registry, items, sorted);
  } catch (error) {
    Object.assign(registry, { ...openRegistry(registry.style), clock: registry.clock });
    throw error;
  }
}

function openEntry(registry: Registry, item: Item, arrival: number): Entry {
  const entry: Entry = {
    item,
    arrival,
    keys: [],
    number: arrival + 1,
    told: NOTHING_TOLD,
    stamp: ++registry.clock,
    scope: () => openScope(item, registry.style.setting, 'bibliography', { number: entry.arrival + 1 }),
  };
  return entry;
}

/** What is done with the entries of a registry so that it holds other works. */
interface Exchange {
  came: Entry[];
  left: Entry[];
  /** Those that stay, in the order of the list. */
  stay: Entry[];
  /** Whether some came in another order than before. */
  moved: boolean;
}

/** The exchange where works stand in place of those before under the same ids, and all others where they were: the most usual change. */
function exchanged(registry: Registry, items: Item[]): Exchange | undefined {
  const { given, entries } = registry;
  if (given.length !== items.length || entries.size !== items.length) return undefined;
  const places: number[] = [];
  for (let i = 0; i < items.length; i++) {
    if (items[i] === given[i]) continue;
    if (items[i]!.id !== given[i]!.id) return undefined;
    places.push(i);
  }
  const left = places.map((i) => entries.get(items[i]!.id)!);
  const came = places.map((i) => openEntry(registry, items[i]!, i));
  for (const entry of came) entries.set(entry.item.id, entry);
  const gone = new Set(left);
  const stay = gone.size ? registry.order.filter((entry) => !gone.has(entry)) : registry.order;
  return { came, left, stay, moved: false };
}

/** The exchange found by looking at every work. */
function exchange(registry: Registry, items: Item[]): Exchange {
  const known = registry.entries;
  const next = new Map<string, Entry>();
  let came: Entry[] = [];
  let furthest = -1;
  let moved = false;
  for (let arrival = 0; arrival < items.length; arrival++) {
    const item = items[arrival]!;
    let entry = known.get(item.id);
    if (entry?.item === item) {
      if (entry.arrival < furthest) moved = true;
      else furthest = entry.arrival;
      entry.arrival = arrival;
    } else {
      entry = openEntry(registry, item, arrival);
      came.push(entry);
    }
    next.set(item.id, entry);
  }
  // Of works of one id, the last stands for all.
  if (next.size !== items.length) came = [...new Set(came)].filter((e) => next.get(e.item.id) === e);
  const stays = (entry: Entry) => next.get(entry.item.id) === entry;
  const allStay = next.size - came.length === registry.order.length;
  const left = allStay ? [] : registry.order.filter((entry) => !stays(entry));
  const stay = allStay ? registry.order : registry.order.filter(stays);
  registry.entries = next;
  return { came, left, stay, moved };
}

function hold(registry: Registry, items: Item[], sorted: boolean): void {
  const { style } = registry;
  const area = sorted ? style.bibliography : undefined;
  const { came, left, stay, moved } = exchanged(registry, items) ?? exchange(registry, items);
  registry.given = [...items];
  const byNumber = area?.keys.some((k) => k.isNumber) === true;
  registry.order = area ? inPlace(area, stay, came, moved || byNumber) : [...registry.entries.values()];
  // A list that is sorted by number from the last to the first counts down.
  const down = area?.keys.filter((k) => k.isNumber).at(-1)?.descending === true;
  const { length } = registry.order;
  registry.order.forEach((entry, i) => (entry.number = down ? length - i : i + 1));
  if (!tells(style)) return;
  if (style.citation.printsNumber) {
    registry.people = openPeople(style.addGiven);
    registry.alike.clear();
    for (const entry of registry.order) delete entry.base;
    disambiguate(registry, registry.order, []);
  } else disambiguate(registry, came, left, moved || byNumber);
}

/** Those that stay with those that came, in the order of the list. */
function inPlace(area: CompiledArea, stay: Entry[], came: Entry[], anew: boolean): Entry[] {
  const compare = (a: Entry, b: Entry) => area.compare(a, b) || a.arrival - b.arrival;
  if (anew && area.keys.some((k) => k.isNumber)) for (const entry of stay) entry.keys = [];
  if (anew || came.length > stay.length * FEW) return [...stay, ...came].sort(compare);
  if (came.length === 0) return stay;
  const order: Entry[] = [];
  let from = 0;
  for (const entry of came.sort(compare)) {
    let [low, high] = [from, stay.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (compare(stay[middle]!, entry) < 0) low = middle + 1;
      else high = middle;
    }
    for (; from < low; from++) order.push(stay[from]!);
    order.push(entry);
  }
  for (; from < stay.length; from++) order.push(stay[from]!);
  return order;
}
