import type { PageServerLoad } from './$types';
import type { Spelled } from '$lib/core/duplicates';
import { spellingsIn } from '$lib/server/duplicates';

const OF = new Map<string | null, Spelled>([
  ['people', 'person'],
  ['containers', 'container'],
]);

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:duplicates');
  const kind = OF.get(url.searchParams.get('of'));
  const wanted = Number(url.searchParams.get('with') ?? NaN);
  return spellingsIn(locals.ctx, kind, Number.isSafeInteger(wanted) ? wanted : undefined);
};
