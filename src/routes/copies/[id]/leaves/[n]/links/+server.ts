import { json } from '@sveltejs/kit';
import { linksOnLeaf } from '$lib/server/copies';
import { orRefuse } from '../../../../../answer';
import type { RequestHandler } from './$types';

/** The links on one leaf of a document, for the reader to lay over it. */
export const GET: RequestHandler = async ({ params, locals }) =>
  json({ links: await orRefuse(linksOnLeaf(locals.ctx, params.id, Number(params.n))) });
