import { scoped, visible, type Context } from '../access/context';
import type { PassageRow } from '../passages/repository';
import { living, type SourceRow } from '../sources/repository';

/** The sources in the bin, latest first. */
export const binnedSources = async (ctx: Context, limit: number): Promise<SourceRow[]> =>
  (await scoped<SourceRow>(ctx, 'source')
    .whereNotNull('binned')
    .whereNull('merged_into')
    .orderBy('binned', 'desc')
    .limit(limit)) as SourceRow[];

/** The passages in the bin, latest first. */
export const binnedPassages = async (ctx: Context, limit: number): Promise<PassageRow[]> =>
  (await visible<PassageRow>(ctx, 'passage')
    .whereNotNull('binned')
    .orderBy('binned', 'desc')
    .limit(limit)) as PassageRow[];

/** What was last added, of a project or the library. */
export const latestSources = async (
  ctx: Context,
  filter: { projectId?: string },
  limit: number,
): Promise<SourceRow[]> =>
  (await living(ctx, filter)
    .orderBy([{ column: 'source.added', order: 'desc' }, 'source.sort_key', 'source.id'])
    .limit(limit)) as unknown as SourceRow[];

/** What the person last marked in living sources, of a project or the library: where one stopped oneself. */
export const latestPassages = async (
  ctx: Context,
  filter: { projectId?: string },
  limit: number,
): Promise<PassageRow[]> =>
  (await visible<PassageRow>(ctx, 'passage')
    .whereNull('passage.binned')
    .where('passage.owner_id', ctx.personId)
    // Asked of each of the latest, so that they are read in their order.
    .whereExists(living(ctx, filter).whereRaw('source.id = passage.source_id').select('source.id'))
    .orderBy('passage.added', 'desc')
    .limit(limit)) as unknown as PassageRow[];
