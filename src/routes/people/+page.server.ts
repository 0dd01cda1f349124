import type { PageServerLoad } from './$types';
import { namesIn } from '$lib/server/people';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:projects', 'retexa:people');
  const kind = url.searchParams.get('of') === 'container' ? ('container' as const) : ('person' as const);
  const words = (url.searchParams.get('q') ?? '').slice(0, 200);
  return { kind, words, names: await namesIn(locals.ctx, kind, words, locals.projectId) };
};
