import { disambiguate, type Printed, type Told } from './disambiguation';
import type { Node } from './pieces';
import { openScope, type LevelOf, type Levels, type Scope } from './scope';
import type { Item } from './item';
import type { SortValue } from './sorting';
import type { CompiledStyle } from './style';

/** A work as the list knows it. */
export interface Entry {
  item: Item;
  /** In the order works came, from 0. */
  arrival: number;
  keys: SortValue[];
  /** Its number in the list, from 1. */
  number: number;
  told: Told;
  /** Its citation as it is compared with others, before anything tells it apart. */
  base?: Printed;
  /** What was printed of it in the list, and what that depended on. */
  printed?: { sign: string; nodes: Node[]; asked: AskedLevel[] };
}

/** The works of a document or a list, in order, told apart. */
export interface Registry {
  style: CompiledStyle;
  entries: Map<string, Entry>;
  /** In the order of the list. */
  order: Entry[];
}

/** How far a name of the list was told, and by what it was asked. */
export type AskedLevel = [...Parameters<LevelOf>, level: number];

export const openRegistry = (style: CompiledStyle): Registry => ({ style, entries: new Map(), order: [] });

/** The scope a work is printed in, first mentioned and with what tells it apart. */
export function scopeOf(
  registry: Registry,
  entry: Entry,
  area: Scope['area'],
  rest: Partial<Scope> = {},
): Scope {
  const { told } = entry;
  return openScope(entry.item, registry.style.setting, area, {
    number: entry.number,
    yearSuffix: told.yearSuffix,
    conditions: told.condition,
    levels: area === 'citation' ? told.levels : namesAlone(told.levels),
    levelOf: told.levelOf,
    ...rest,
  });
}

/** In the list, the first names show as many as the citations do. */
const namesAlone = (levels: Levels | undefined): Levels | undefined =>
  levels?.show?.[0] === undefined ? undefined : { show: [levels.show[0]] };

/**
 * Makes a registry hold these works: sorted as the style sorts its list, numbered, and told apart. With `sorted` off they
 * stay in the order they come.
 */
export function setItems(registry: Registry, items: Item[], sorted = true): void {
  const { style } = registry;
  const area = style.bibliography;
  const next = new Map<string, Entry>();
  items.forEach((item, arrival) => {
    const known = registry.entries.get(item.id);
    if (known?.item === item) known.arrival = arrival;
    next.set(
      item.id,
      known?.item === item ? known : { item, arrival, keys: [], number: arrival + 1, told: NOTHING_TOLD },
    );
  });
  registry.entries = next;
  // Those known stand in the order they had, which is nearly the one they will have.
  const before = registry.order.filter((e) => next.get(e.item.id) === e);
  const stay = new Set(before);
  const order =
    area && sorted ? [...before, ...[...next.values()].filter((e) => !stay.has(e))] : [...next.values()];
  if (area && sorted) {
    const byNumber = area.keys.some((k) => k.isNumber);
    for (const entry of order)
      if (entry.keys.length !== area.keys.length || byNumber)
        entry.keys = area.keys.map((key) =>
          key.of(openScope(entry.item, style.setting, 'bibliography', { number: entry.arrival + 1 })),
        );
    order.sort((a, b) => area.compare(a.keys, b.keys) || a.arrival - b.arrival);
  }
  // A list that is sorted by number from the last to the first counts down.
  const down = area?.keys.filter((k) => k.isNumber).at(-1)?.descending === true;
  order.forEach((entry, i) => (entry.number = down && sorted ? order.length - i : i + 1));
  registry.order = order;
  disambiguate(registry);
}

const NOTHING_TOLD: Told = { condition: 0 };
