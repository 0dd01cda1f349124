import { searchForm } from '../../core/query';
import { nfc } from '../../core/text';
import { scoped, type Context } from '../access/context';
import { inParts } from '../db/ids';
import { noteRevisions } from '../history/repository';
import { alsoFoundBy } from '../search/repository';
import { inTurn } from '../turns';
import type { MadeOf } from './editing';
import { checkSources, type SourceRow } from './repository';

/** How many sources are tagged with one statement: others are answered between. */
const AT_ONCE = 100;

/**
 * Adds a tag to sources that lack it, with a revision each, and gives these. Nothing but their tags is made anew, and no record
 * is read for it: thousands are tagged in the time that tens are edited in. Call in a transaction.
 */
export async function addTag(ctx: Context, ids: readonly string[], given: string): Promise<MadeOf[]> {
  const tag = nfc(given).trim();
  await checkSources(ctx, [...ids]);
  const revisions: MadeOf[] = [];
  for await (const part of inTurn(inParts([...new Set(ids)], AT_ONCE))) {
    const rows = (await scoped<SourceRow>(ctx, 'source')
      .whereIn('id', part)
      .whereNotExists(ctx.db('source_tag').whereRaw('source_id = source.id').where({ tag }).select('tag'))
      .select(
        'id',
        'revision',
        'binned',
        ctx.db.raw(`json_array_length(record, '$.retexa.tags') AS tags`),
      )) as unknown as { id: string; revision: number; binned: string | null; tags: number }[];
    if (rows.length === 0) continue;
    const lacking = rows.map((row) => row.id);
    await scoped<SourceRow>(ctx, 'source')
      .whereIn('id', lacking)
      .update({
        record: ctx.db.raw(`json_insert(record, '$.retexa.tags[#]', ?)`, [tag]),
        revision: ctx.db.raw('revision + 1'),
      });
    await ctx
      .db('source_tag')
      .insert(lacking.map((source_id) => ({ library_id: ctx.libraryId, source_id, tag })));
    await alsoFoundBy(
      ctx,
      'source',
      rows.flatMap((row) => (row.binned ? [] : row.id)),
      searchForm(tag),
    );
    const made = rows.map((row) => ({
      id: row.id,
      number: row.revision + 1,
      forward: [{ op: 'add' as const, path: '/record/retexa/tags/-', value: tag }],
      backward: [{ op: 'remove' as const, path: `/record/retexa/tags/${row.tags}` }],
    }));
    const noted = await noteRevisions(ctx, 'source', made, `tagged ${tag}`);
    revisions.push(...noted.map((revisionId, i) => ({ sourceId: made[i]!.id, revisionId })));
  }
  return revisions;
}

/** Sources with a tag, those in the bin too. One that went into another keeps its tags as they were, for the case that it comes back. */
export async function sourcesTagged(ctx: Context, tag: string): Promise<string[]> {
  const rows = (await scoped(ctx, 'source_tag')
    .join('source', 'source.id', 'source_tag.source_id')
    .where('source_tag.tag', tag)
    .whereNull('source.merged_into')
    .select('source_tag.source_id as source_id')) as unknown as { source_id: string }[];
  return rows.map((row) => row.source_id);
}
