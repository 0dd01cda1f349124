import type { Finding } from '../../core/proof';
import { scoped, type Context } from '../access/context';
import type { Knex } from 'knex';
import { now } from '../db/ids';
import { living, type SourceFilter } from '../sources/repository';

/** Puts what the proof finds in a source in place of what it found before. Call in the transaction that changed it. */
export async function keepFindings(
  ctx: Context,
  sourceId: string,
  findings: Finding[],
  fresh = false,
): Promise<void> {
  if (!fresh) await ctx.db('finding').where({ source_id: sourceId }).delete();
  const rows = new Map<string, object>();
  for (const { check, pencil, fix } of findings)
    if (!rows.has(check))
      rows.set(check, {
        library_id: ctx.libraryId,
        source_id: sourceId,
        name: check,
        pencil,
        fixable: fix !== undefined,
      });
  if (rows.size) await ctx.db('finding').insert([...rows.values()]);
}

/** How often a check found something, and how often it knows what to do. */
export interface Found {
  check: string;
  pencil: Finding['pencil'];
  n: number;
  fixable: number;
}

/** Leaves what is found in sources that fit a filter. What was found in sources that are not living is not kept. */
function within<Q extends Knex.QueryBuilder>(ctx: Context, query: Q, filter: SourceFilter): Q {
  const { projectId, ...more } = filter;
  if (Object.keys(more).length) void query.whereIn('source_id', living(ctx, filter).select('source.id'));
  else if (projectId)
    void query.whereIn('source_id', ctx.db('filing').where({ project_id: projectId }).select('source_id'));
  return query;
}

/** What is found in the living sources that fit a filter, by check. */
export async function foundBy(ctx: Context, filter: SourceFilter): Promise<Found[]> {
  const query = within(ctx, scoped(ctx, 'finding'), filter);
  const rows = (await query
    .groupBy('name')
    .select('name')
    .min({ pencil: 'pencil' })
    .count({ n: '*' })
    .sum({ fixable: 'fixable' })) as unknown as {
    name: string;
    pencil: Found['pencil'];
    n: number;
    fixable: number;
  }[];
  return rows.map(({ name, ...row }) => ({ check: name, ...row }));
}

/** Ids of the living sources in which a check found something, in the order they were added, at most `most`. */
export async function sourcesFound(
  ctx: Context,
  check: string,
  filter: SourceFilter,
  most: number,
): Promise<string[]> {
  const query = within(ctx, scoped<{ source_id: string; name: string }>(ctx, 'finding'), filter).where({
    name: check,
  });
  const rows = (await query.orderBy('source_id').limit(most).select('source_id')) as {
    source_id: string;
  }[];
  return rows.map((row) => row.source_id);
}

/** The checks a project does not ask. */
export async function asideIn(ctx: Context, projectId: string | undefined): Promise<Set<string>> {
  if (!projectId) return new Set();
  const rows = (await scoped<{ name: string; project_id: string }>(ctx, 'proof_aside')
    .where({ project_id: projectId })
    .select('name')) as { name: string }[];
  return new Set(rows.map((row) => row.name));
}

/** Has a project not ask a check, or ask it again. */
export async function setAside(
  ctx: Context,
  projectId: string,
  check: string,
  aside: boolean,
): Promise<void> {
  const row = { library_id: ctx.libraryId, project_id: projectId, name: check };
  await scoped(ctx, 'proof_aside').where({ project_id: projectId, name: check }).delete();
  if (aside) await ctx.db('proof_aside').insert({ ...row, person_id: ctx.personId, at: now() });
}
