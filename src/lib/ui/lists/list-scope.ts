import type { Scope } from '$lib/server/lists';

/** What a list holds, as the address of the Reference list says it. */
export interface ListScope {
  /** Its name in the address: `library`, `project`, `selection`, `cited`, `section:ID`, `tag:NAME`. */
  name: string;
  /** The sources named one by one, where they are. */
  ids: string[];
  scope: Scope;
}

/**
 * Reads what a list holds from an address; without a word there it is the selection, the project or the library. Sources
 * named one by one stand behind the `#`, which no server gets: thousands of them would be too long for a request.
 */
export function listScope(search: URLSearchParams, projectId?: string, hash = ''): ListScope {
  const given = new URLSearchParams(hash.replace(/^#/, '')).get('ids') ?? search.get('ids');
  const ids = given?.split(',').filter(Boolean) ?? [];
  const name = search.get('scope') ?? (ids.length ? 'selection' : projectId ? 'project' : 'library');
  const value = name.slice(name.indexOf(':') + 1);
  const scope = (): Scope => {
    if (name === 'selection' || name === 'cited') return { kind: 'selection', ids };
    if (name.startsWith('section:')) return { kind: 'section', sectionId: value };
    if (name.startsWith('tag:')) return { kind: 'tag', tag: value, ...(projectId ? { projectId } : {}) };
    return name === 'project' && projectId ? { kind: 'project', projectId } : { kind: 'library' };
  };
  return { name, ids, scope: scope() };
}
