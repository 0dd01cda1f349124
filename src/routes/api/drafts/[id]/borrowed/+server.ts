import { nothing } from '$lib/server/requests';
import { json } from '@sveltejs/kit';
import { lastBorrowed, lookForBorrowed } from '$lib/server/drafts';
import { changes, idOf, orRefuse } from '../../../../answer';
import type { RequestHandler } from './$types';

/** How the last comparison of a draft with all that is kept stands, and what came of it. */
export const GET: RequestHandler = async ({ params, locals }) =>
  json({ job: (await orRefuse(lastBorrowed(locals.ctx, params.id))) ?? null });

/** Begins to hold a draft against all that is kept. */
export const POST = changes(nothing, (_given, ctx, event) => lookForBorrowed(ctx, idOf(event)));
