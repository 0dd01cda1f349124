import type { PageServerLoad } from './$types';
import { shortLabel } from '$lib/core/source';
import { copiesOf, getCopy } from '$lib/server/copies';
import { passagesWhere } from '$lib/server/passages';
import { getSource } from '$lib/server/sources';
import { orRefuse } from '../../answer';

export const load: PageServerLoad = async ({ params, locals, depends }) => {
  depends('retexa:sources', 'retexa:passages');
  const { ctx } = locals;
  const { text: _text, ...copy } = await orRefuse(getCopy(ctx, params.id));
  const [source, copies, passages] = await Promise.all([
    getSource(ctx, copy.source_id),
    copiesOf(ctx, copy.source_id),
    passagesWhere(ctx, { copy_id: copy.id }),
  ]);
  return {
    copy,
    copies,
    passages,
    source: { id: source.id, title: source.record.title ?? '', label: shortLabel(source.record) },
  };
};
