import { json } from '@sveltejs/kit';
import { contentsOf } from '$lib/server/copies';
import { orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

/** The document's own contents. */
export const GET: RequestHandler = async ({ params, locals }) =>
  json({ contents: await orRefuse(contentsOf(locals.ctx, params.id)) });
