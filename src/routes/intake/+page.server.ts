import type { PageServerLoad } from './$types';
import { shortLabel } from '$lib/core/source';
import { copiesOf } from '$lib/server/repositories/copies';
import { living, openSource, type SourceRow } from '$lib/server/repositories/sources';
import { doublesOf } from '$lib/server/services/capture';
import { printedFields } from '$lib/server/services/printing';
import { allTags } from '$lib/server/services/sources';
import { lookOf } from '../look';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:data');
  const { ctx, projectId } = locals;
  const rows = (await living(ctx, { ...(projectId ? { projectId } : {}), state: 'intake' })
    .orderBy('added')
    .limit(500)) as SourceRow[];
  const queue = rows.map((row) => ({
    id: row.id,
    type: row.type,
    label: shortLabel(openSource(row).record),
    title: row.title,
  }));
  const at = Math.max(
    0,
    rows.findIndex((r) => r.id === url.searchParams.get('at')),
  );
  const row = rows[at];
  if (!row) return { queue, at: 0, source: undefined, copies: [], tags: [], doubles: [], printed: [] };
  const source = openSource(row);
  const { style } = await lookOf(locals);
  const [copies, tags, doubles, printed] = await Promise.all([
    copiesOf(ctx, source.id),
    allTags(ctx),
    doublesOf(ctx, source.record, source.id),
    printedFields(style, source.record.type),
  ]);
  return { queue, at, source, copies, tags, doubles, printed };
};
