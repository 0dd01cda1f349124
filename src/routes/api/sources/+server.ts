import { json } from '@sveltejs/kit';
import { byHandWords } from '$lib/core/forms';
import { into, startByHand } from '$lib/server/capture';
import { listSources, withReferences } from '$lib/server/sources';
import { changes, orRefuse } from '../../answer';
import { lookOf } from '../../look';
import { filterOf } from '../../filter';
import type { RequestHandler } from './$types';

/** Further than any library goes; SQLite counts in 64 bits and refuses more. */
const MOST_OFFSET = 10_000_000;

/** A page of the sources that fit the filters in the address. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const offset = Math.min(Math.max(0, Math.trunc(Number(url.searchParams.get('offset'))) || 0), MOST_OFFSET);
  const { filter, sort } = filterOf(url, locals);
  const after = url.searchParams.get('after');
  const from = after ? { after } : { offset };
  const look = await lookOf(locals);
  const list = await orRefuse(listSources(locals.ctx, filter, look, { from, limit: 100, sort }));
  return json({ ...list, items: await withReferences(locals.ctx, list.items, look) });
};

const byHand = byHandWords.extend({ into: into.optional() });

/** Starts a source by hand. */
export const POST = changes(byHand, async ({ into: where, ...given }, ctx, { locals }) => ({
  id: (
    await startByHand(ctx, given, { ...(locals.projectId ? { projectId: locals.projectId } : {}), ...where })
  ).id,
}));
