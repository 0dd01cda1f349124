import { filtersAsQuery, MOST_QUERY, parseQuery, wordsSought } from '$lib/core/query';
import { sortIn, type SourceFilter, type Sort } from '$lib/server/sources';

/** The project a view is narrowed to: the chosen one, unless the address asks for the whole library. */
export const projectOf = (url: URL, locals: App.Locals): string | undefined =>
  url.searchParams.get('in') === 'library' ? undefined : locals.projectId;

/**
 * The filter and order of sources that an address asks for, within the chosen project. What narrows by a name of its own, as
 * `type` or `tag`, is asked as part of the query.
 */
export function filterOf(url: URL, locals: App.Locals): { filter: SourceFilter; sort: Sort } {
  const get = (name: string) => url.searchParams.get(name)?.trim() || undefined;
  const text = filtersAsQuery(Object.fromEntries(url.searchParams)).slice(0, MOST_QUERY);
  const section = get('section')?.slice(0, 60);
  return {
    filter: {
      ...(locals.projectId ? { projectId: locals.projectId } : {}),
      ...(section ? { section } : {}),
      ...(text ? { text } : {}),
    },
    // What is looked for in words comes by how well it fits, unless another order is wished; a section has one of its own.
    sort:
      sortIn(get('sort') ?? '') ??
      (text && wordsSought(parseQuery(text)) ? 'fit' : section && section !== 'none' ? 'own' : 'author'),
  };
}
