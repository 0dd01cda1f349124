import type { Spelled } from '../../core/duplicates';
import { scoped, type Context } from '../access/context';

/** Names of a kind, of a project or the library, with how many sources have them: those in most first. */
export async function namesOf(
  ctx: Context,
  kind: Spelled,
  projectId: string | undefined,
): Promise<{ name: string; n: number }[]> {
  const all = scoped(ctx, 'trait').where({ kind }).select('value as name');
  const filed = () =>
    ctx
      .db('filing')
      .join('source', 'source.id', 'filing.source_id')
      .where({ project_id: projectId! })
      .select('source.no');
  const counted = projectId
    ? all
        .join('trait_of', 'trait_of.trait_id', 'trait.id')
        .whereIn('trait_of.no', filed())
        .groupBy('trait.id')
        .count({ n: '*' })
    : all.where('n', '>', 0).select('n');
  return (await counted.orderBy([{ column: 'n', order: 'desc' }, { column: 'name' }])) as unknown as {
    name: string;
    n: number;
  }[];
}

/** The sources a name stands in. */
export async function idsNaming(ctx: Context, kind: Spelled, name: string): Promise<string[]> {
  const rows = (await scoped(ctx, 'trait')
    .where({ kind, value: name })
    .join('trait_of', 'trait_of.trait_id', 'trait.id')
    .join('source', 'source.no', 'trait_of.no')
    .select('source.id')) as { id: string }[];
  return rows.map(({ id }) => id);
}
