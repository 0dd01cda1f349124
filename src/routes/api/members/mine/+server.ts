import { json } from '@sveltejs/kit';
import { privatePassages } from '$lib/server/libraries';
import type { RequestHandler } from './$types';

/** What is one's own alone in the library: to be saved before one leaves. */
export const GET: RequestHandler = async ({ locals }) =>
  json({ passages: await privatePassages(locals.ctx) });
