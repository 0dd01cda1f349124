import type { PageServerLoad } from './$types';
import { doublesOf } from '$lib/server/capture';
import { copiesOf } from '$lib/server/copies';
import { printedFields } from '$lib/server/lists';
import { allTags, intakeAround } from '$lib/server/sources';
import { lookOf } from '../look';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:projects');
  const { ctx, projectId } = locals;
  const around = await intakeAround(ctx, projectId, url.searchParams.get('at'));
  const { source } = around;
  if (!source) return { ...around, copies: [], tags: [], doubles: [], printed: [] };
  const { style } = await lookOf(locals);
  const [copies, tags, doubles, printed] = await Promise.all([
    copiesOf(ctx, source.id),
    allTags(ctx),
    doublesOf(ctx, source.record, source.id),
    printedFields(locals.ctx, style, source.record.type),
  ]);
  return { ...around, copies, tags, doubles, printed };
};
