import { json } from '@sveltejs/kit';
import { keepFromPage, pageHere, selectionGiven } from '$lib/server/passages';
import { changes, orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

/** Keeps what is selected on a page that is here as a passage of it; says so when the page is not here. */
export const POST = changes(selectionGiven, async (what, ctx) => ({
  found: (await keepFromPage(ctx, what)) ?? null,
}));

/** The page at an address, as it is here, or nothing. */
export const GET: RequestHandler = async ({ url, locals }) =>
  json({
    here:
      (await orRefuse(pageHere(locals.ctx, (url.searchParams.get('address') ?? '').slice(0, 4_000)))) ?? null,
  });
