import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { CITEKEY_BETWEEN, CITEKEY_PARTS } from '$lib/core/source';
import { changeCitekeys, citekeyPattern, citekeysBy } from '$lib/server/sources';
import { asks, changes, ids } from '../../answer';
import type { RequestHandler } from './$types';

const pattern = z.object({
  parts: z.array(z.enum(CITEKEY_PARTS)).min(1, 'A citekey needs a part').max(6),
  between: z.enum(CITEKEY_BETWEEN),
});

/** How the library makes citekeys. */
export const GET: RequestHandler = async ({ locals }) => json(await citekeyPattern(locals.ctx));

/** Shows the keys some sources would get by a pattern. */
export const POST = asks(z.object({ pattern, ids }), ({ pattern, ids }, ctx) =>
  citekeysBy(ctx, pattern, ids),
);

/** Makes citekeys in another way from now on; gives the named sources new keys too. */
export const PATCH = changes(z.object({ pattern, renew: ids.optional() }), ({ pattern, renew }, ctx) =>
  changeCitekeys(ctx, pattern, renew),
);
