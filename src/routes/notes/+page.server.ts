import type { PageServerLoad } from './$types';
import { listNotes } from '$lib/server/services/notes';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:data');
  const text = url.searchParams.get('q') ?? '';
  return {
    notes: await listNotes(locals.ctx, {
      ...(locals.projectId ? { projectId: locals.projectId } : {}),
      ...(text ? { text } : {}),
    }),
  };
};
