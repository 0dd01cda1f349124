import { json, type RequestHandler } from '@sveltejs/kit';
import { facetsOf } from '$lib/server/sources';
import { filterOf } from '../../filter';
import { orRefuse } from '../../answer';

/** What the sources an address asks for can be narrowed by, with how many there are of each. */
export const GET: RequestHandler = async ({ url, locals }) =>
  json(await orRefuse(facetsOf(locals.ctx, filterOf(url, locals).filter)));
