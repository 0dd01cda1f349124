import { MOST_IDS } from '$lib/server/requests';
import { json } from '@sveltejs/kit';
import { listIds } from '$lib/server/sources';
import { orRefuse } from '../../../answer';
import { filterOf } from '../../../filter';
import type { RequestHandler } from './$types';

/** Ids of all sources that fit the filters in the address, as many as can be chosen at once, and how many there are. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const ids = await orRefuse(listIds(locals.ctx, filterOf(url, locals).filter));
  return json({ ids: ids.slice(0, MOST_IDS), total: ids.length });
};
