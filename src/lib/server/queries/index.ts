import { z } from 'zod';
import { queryWords } from '../../core/forms';
import { MOST_QUERY, parseQuery, printQuery, problemsIn } from '../../core/query';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { notHere, Refusal } from '../access/refusal';
import { newId } from '../db/ids';
import { countSources } from '../sources';
import { deleteQuery, insertQuery, savedQueries, type SavedQuery } from './repository';

export { savedQueries, type SavedQuery } from './repository';

/** What a query is kept as. */
export const toSave = queryWords.extend({
  query: z.string().trim().min(1).max(MOST_QUERY),
});

/** How many queries a library keeps: each is counted wherever the path is. */
const MOST_SAVED = 40;

const CHANGE = { right: 'edit', of: ['queries'] } as const;

/** How many sources of a project or the library each kept query finds now, by its id. */
export async function savedCounts(
  ctx: Context,
  projectId: string | undefined,
): Promise<Record<string, number>> {
  const counts: Record<string, number> = {};
  for (const { id, query } of await savedQueries(ctx))
    counts[id] = await countSources(ctx, { text: query, ...(projectId ? { projectId } : {}) });
  return counts;
}

/** Keeps a query by a name, in the form it is printed in; refuses one that cannot be asked, and a name that is there already. */
export const saveQuery = (ctx: Context, { name, query }: z.infer<typeof toSave>): Promise<{ id: string }> =>
  change(ctx, CHANGE, async (inner) => {
    const parsed = parseQuery(query);
    const problems = problemsIn(parsed);
    if (problems.length) throw new Refusal(422, 'The query was not kept:', problems);
    const kept = await savedQueries(inner);
    if (kept.some((one) => one.name.toLowerCase() === name.toLowerCase()))
      throw new Refusal(422, `There is a query called ${name} already.`);
    if (kept.length >= MOST_SAVED)
      throw new Refusal(422, `${MOST_SAVED} queries are kept, and no more. Let go of one first.`);
    const id = newId();
    await insertQuery(inner, { id, name, query: printQuery(parsed) });
    return { id };
  });

/** Lets go of a kept query, and gives it, so that it can be kept again. */
export const forgetQuery = (ctx: Context, id: string): Promise<SavedQuery> =>
  change(ctx, CHANGE, async (inner) => {
    const kept = (await savedQueries(inner)).find((one) => one.id === id);
    if (!kept) throw notHere('query');
    await deleteQuery(inner, id);
    return kept;
  });
