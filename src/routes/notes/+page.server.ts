import type { PageServerLoad } from './$types';
import { listNotes } from '$lib/server/notes';
import { TAG_TINTS } from '$lib/core/source';
import { projectOf } from '../filter';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:notes', 'retexa:sources', 'retexa:projects');
  const projectId = projectOf(url, locals);
  const tint = TAG_TINTS.find((one) => one === url.searchParams.get('tint'));
  const text = url.searchParams.get('q') ?? '';
  return {
    notes: await listNotes(locals.ctx, {
      ...(projectId ? { projectId } : {}),
      ...(text ? { text } : {}),
      ...(tint ? { tint } : {}),
    }),
  };
};
