import type { PageServerLoad } from './$types';
import { listLeads } from '$lib/server/leads';
import { getSource } from '$lib/server/sources';
import { shortLabel } from '$lib/core/source';
import { projectOf } from '../filter';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:leads', 'retexa:sources');
  const { ctx } = locals;
  const projectId = projectOf(url, locals);
  const text = url.searchParams.get('q') ?? '';
  const metIn = url.searchParams.get('met') ?? '';
  const source = metIn ? await getSource(ctx, metIn).catch(() => undefined) : undefined;
  const leads = await listLeads(ctx, {
    ...(projectId ? { projectId } : {}),
    ...(text ? { text } : {}),
    ...(source ? { metIn: source.id } : {}),
  });
  return { leads, ...(source ? { metIn: { id: source.id, label: shortLabel(source.record) } } : {}) };
};
