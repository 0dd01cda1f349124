import type { PageServerLoad } from './$types';
import { scoped } from '$lib/server/context';
import { getJob, type Job } from '$lib/server/repositories/jobs';
import type { ImportInput, ImportResult } from '$lib/server/services/imports';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:data');
  const { ctx } = locals;
  const rows = (await scoped<{ id: string; kind: string; created: string }>(ctx, 'job')
    .where({ kind: 'import' })
    .orderBy('created', 'desc')
    .limit(8)
    .select('id')) as { id: string }[];
  const imports = await Promise.all(rows.map((r) => getJob(ctx, r.id)));
  return { imports: imports as Job<ImportInput, ImportResult>[] };
};
