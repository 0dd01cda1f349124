import { goto } from '$app/navigation';
import { page } from '$app/state';

/** What the address narrows a view by, under a name; empty when it does not. */
export const narrowedBy = (name: string): string => page.url.searchParams.get(name) ?? '';

/** Changes what the address narrows the view by; an empty value takes a name out. */
export function narrow(changes: Record<string, string | undefined>): void {
  const search = Object.fromEntries(page.url.searchParams);
  const next = Object.entries({ ...search, ...changes }).filter((e): e is [string, string] => Boolean(e[1]));
  const query = next.map(([name, value]) => `${name}=${encodeURIComponent(value)}`).join('&');
  void goto(`?${query}`, { keepFocus: true, noScroll: true, replaceState: true });
}
