/** What a column orders a list by: the names of its orders, the first and the other way round where there is one. */
interface Ordering {
  sorts?: [string, ...string[]];
}

/** How many orders one within another there are at most. */
const MOST_WITHIN = 4;

/** The orders that a list is in, the first before the second and so on. */
const ordersIn = (sort: string) => sort.split(',').filter(Boolean);

/** Where the order of a column stands among those of a list, from 0, and whether it falls; nothing where it has no part in it. */
export function orderOf({ sorts }: Ordering, sort: string): { at: number; falls: boolean } | undefined {
  const orders = ordersIn(sort);
  const at = orders.findIndex((order) => sorts?.includes(order));
  return at === -1 ? undefined : { at, falls: orders[at] === 'newest' || orders[at] === 'added' };
}

/**
 * The order of a list once a head is pressed: by its column, the other way round where it is already, and with `within` by it
 * among what the orders there are leave alike; then the third press of a column takes it out again.
 */
export function orderWith(column: Ordering, sort: string, within: boolean): string {
  const sorts = column.sorts!;
  const orders = ordersIn(sort).filter((order) => order !== 'fit' && order !== 'own');
  const at = orders.findIndex((order) => sorts.includes(order));
  const turn = at === -1 ? 0 : sorts.indexOf(orders[at]!) + 1;
  if (!within) return sorts[turn % sorts.length]!;
  const next = sorts[turn];
  return (at === -1 ? [...orders, next!] : orders.flatMap((order, i) => (i === at ? (next ?? []) : order)))
    .slice(-MOST_WITHIN)
    .join(',');
}
