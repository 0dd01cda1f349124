import type { PageServerLoad } from './$types';
import type { Spelled } from '$lib/core/duplicates';
import { spellingsIn } from '$lib/server/duplicates';

const OF: Record<string, Spelled | undefined> = { people: 'person', containers: 'container' };

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:duplicates');
  const kind = OF[url.searchParams.get('of') ?? ''];
  const wanted = Number(url.searchParams.get('with') ?? NaN);
  return spellingsIn(locals.ctx, kind, Number.isSafeInteger(wanted) ? wanted : undefined);
};
