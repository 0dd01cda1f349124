import { goto } from '$app/navigation';
import { page } from '$app/state';
import { filtersAsQuery, parseQuery, printQuery, type Query } from '$lib/core/query';

/** What the address narrows a view by, under a name; empty when it does not. */
export const narrowedBy = (name: string): string => page.url.searchParams.get(name) ?? '';

/** The address of this view narrowed otherwise; an empty value takes a name out. */
export function narrowedHref(changes: Record<string, string | undefined>): string {
  const search = Object.fromEntries(page.url.searchParams);
  const next = Object.entries({ ...search, ...changes }).filter((e): e is [string, string] => Boolean(e[1]));
  return `?${next.map(([name, value]) => `${name}=${encodeURIComponent(value)}`).join('&')}`;
}

/**
 * Changes what the address narrows the view by; an empty value takes a name out. `hash` is what stands behind the `#`,
 * which stays as it is unless one is given.
 */
export function narrow(
  changes: Record<string, string | undefined>,
  hash = page.url.hash.replace(/^#/, ''),
): void {
  void goto(`${narrowedHref(changes)}${hash && `#${hash}`}`, {
    keepFocus: true,
    noScroll: true,
    replaceState: true,
  });
}

/** What has a name of its own in the address and is a field of a query as well. */
const NAMED = ['type', 'tag', 'state'] as const;

/** What the address narrows sources by, as one query; years stand beside it. */
export const queried = (): Query =>
  parseQuery(filtersAsQuery(Object.fromEntries(['q', ...NAMED].map((name) => [name, narrowedBy(name)]))));

/** Narrows sources by a query. */
export const narrowTo = (query: Query): void =>
  narrow({ q: printQuery(query), ...Object.fromEntries(NAMED.map((name) => [name, undefined])) });
