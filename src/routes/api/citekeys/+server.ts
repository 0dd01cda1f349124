import { json } from '@sveltejs/kit';

import { citekeysOfMany } from '$lib/server/many';
import { citekeyPattern, citekeysBy, citekeysTried, citekeysMade } from '$lib/server/sources';
import { asks, changes } from '../../answer';
import type { RequestHandler } from './$types';

/** How the library makes citekeys. */
export const GET: RequestHandler = async ({ locals }) => json(await citekeyPattern(locals.ctx));

/** Shows the keys some sources would get by a pattern. */
export const POST = asks(citekeysTried, ({ pattern, ids }, ctx) => citekeysBy(ctx, pattern, ids));

/** Makes citekeys in another way from now on; gives the named sources new keys too. */
export const PATCH = changes(citekeysMade, ({ pattern, renew }, ctx) => citekeysOfMany(ctx, pattern, renew));
