import { scoped, type Context } from './context';
import { notHere } from './refusal';

/** What a request may name by its id. */
export type Named = Partial<
  Record<'project' | 'section' | 'source' | 'lead' | 'preset' | 'copy' | 'draft' | 'choice', string | null>
>;

/** Refuses ids that name nothing in the context's library: unknown ones, and those of another library. */
export async function checkHere(ctx: Context, named: Named): Promise<void> {
  for (const [what, id] of Object.entries(named))
    if (typeof id === 'string' && !(await scoped<{ id: string }>(ctx, what).where({ id }).first('id')))
      throw notHere(what);
}
