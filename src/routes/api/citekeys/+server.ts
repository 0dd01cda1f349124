import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { CITEKEY_BETWEEN, CITEKEY_PARTS, makeCitekey } from '$lib/core/source';
import { citekeyPattern, setCitekeyPattern } from '$lib/server/repositories/citekeys';
import { getSources } from '$lib/server/repositories/sources';
import { renewCitekeys } from '$lib/server/services/sources';
import { answer, ids } from '../../answer';
import type { RequestHandler } from './$types';

const pattern = z.object({
  parts: z.array(z.enum(CITEKEY_PARTS)).min(1, 'A citekey needs a part').max(6),
  between: z.enum(CITEKEY_BETWEEN),
});

/** How the library makes citekeys. */
export const GET: RequestHandler = async ({ locals }) => json(await citekeyPattern(locals.ctx));

/** Shows the keys some sources would get by a pattern. */
export const POST = answer(z.object({ pattern, ids }), async ({ pattern, ids }, ctx) =>
  (await getSources(ctx, ids.slice(0, 10))).map((s) => ({
    id: s.id,
    now: s.citekey,
    made: makeCitekey(s.record, () => false, pattern),
  })),
);

/** Makes citekeys in another way from now on; gives the named sources new keys too. */
export const PATCH = answer(z.object({ pattern, renew: ids.optional() }), async ({ pattern, renew }, ctx) => {
  await setCitekeyPattern(ctx, pattern);
  return { revisions: renew ? await renewCitekeys(ctx, renew) : [] };
});
