import { json } from '@sveltejs/kit';
import { draftSave, draftSince, saveDraft } from '$lib/server/drafts';
import { changes, idOf, orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

/** What stands in a draft; with `since`, what was changed after that revision. */
export const GET: RequestHandler = ({ params, url, locals }) => {
  const since = Number(url.searchParams.get('since') ?? NaN);
  return orRefuse(
    draftSince(locals.ctx, params.id, Number.isSafeInteger(since) && since >= 0 ? since : undefined),
  ).then(json);
};

/** Writes what a window changed of a draft, and tells it what others did. */
export const POST = changes(draftSave, (said, ctx, event) => saveDraft(ctx, idOf(event), said));
