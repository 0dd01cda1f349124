import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { keepFromPage, pageHere } from '$lib/server/passages';
import { changes, orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

const given = z.strictObject({
  address: z.string().min(1).max(4_000),
  selection: z.string().min(1).max(50_000),
});

/** Keeps what is selected on a page that is here as a passage of it; says so when the page is not here. */
export const POST = changes(given, async (what, ctx) => ({ found: (await keepFromPage(ctx, what)) ?? null }));

/** The page at an address, as it is here, or nothing. */
export const GET: RequestHandler = async ({ url, locals }) =>
  json({
    here:
      (await orRefuse(pageHere(locals.ctx, (url.searchParams.get('address') ?? '').slice(0, 4_000)))) ?? null,
  });
