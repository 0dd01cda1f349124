import type { PageServerLoad } from './$types';
import { listNotes } from '$lib/server/services/notes';
import { projectOf } from '../filter';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:data');
  const projectId = projectOf(url, locals);
  const text = url.searchParams.get('q') ?? '';
  return {
    notes: await listNotes(locals.ctx, {
      ...(projectId ? { projectId } : {}),
      ...(text ? { text } : {}),
    }),
  };
};
