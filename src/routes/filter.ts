import { MOST_QUERY, parseQuery, wordsSought } from '$lib/core/query';
import { type SourceFilter, SORTS, type Sort } from '$lib/server/sources';

/** The project a view is narrowed to: the chosen one, unless the address asks for the whole library. */
export const projectOf = (url: URL, locals: App.Locals): string | undefined =>
  url.searchParams.get('in') === 'library' ? undefined : locals.projectId;

/** The filter and order of sources that an address asks for, within the chosen project. */
export function filterOf(url: URL, locals: App.Locals): { filter: SourceFilter; sort: Sort } {
  const get = (name: string) => url.searchParams.get(name)?.trim() || undefined;
  const year = (name: string) => (/^-?\d{1,4}$/.test(get(name) ?? '') ? Number(get(name)) : undefined);
  const state = get('state');
  const [text, type, tag, from, to, sort] = [
    get('q'),
    get('type'),
    get('tag'),
    year('from'),
    year('to'),
    get('sort') ?? '',
  ];
  return {
    filter: {
      ...(locals.projectId ? { projectId: locals.projectId } : {}),
      ...(text ? { text: text.slice(0, MOST_QUERY) } : {}),
      ...(type ? { type } : {}),
      ...(tag ? { tag } : {}),
      ...(state === 'findings' || state === 'intake' ? { state } : {}),
      ...(from !== undefined ? { from } : {}),
      ...(to !== undefined ? { to } : {}),
    },
    // What is looked for in words comes by how well it fits, unless another order is wished.
    sort: Object.hasOwn(SORTS, sort)
      ? (sort as Sort)
      : text && wordsSought(parseQuery(text))
        ? 'fit'
        : 'author',
  };
}
