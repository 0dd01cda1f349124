import type { PageServerLoad } from './$types';
import { doublesOfSource, relatedTo } from '$lib/server/duplicates';
import { copiesOf } from '$lib/server/copies';
import { printedFields } from '$lib/server/lists';
import { allTags, intakeAround } from '$lib/server/sources';
import { lookOf } from '../look';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:projects', 'retexa:duplicates');
  const { ctx, projectId } = locals;
  const around = await intakeAround(ctx, projectId, url.searchParams.get('at'));
  const { source } = around;
  if (!source) return { ...around, copies: [], tags: [], doubles: [], related: [], printed: [] };
  const { style } = await lookOf(locals);
  const [copies, tags, doubles, related, printed] = await Promise.all([
    copiesOf(ctx, source.id),
    allTags(ctx),
    doublesOfSource(ctx, source.id),
    relatedTo(ctx, source.id),
    printedFields(locals.ctx, style, source.record.type),
  ]);
  return { ...around, copies, tags, doubles, related, printed };
};
