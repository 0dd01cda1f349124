import { json, type RequestHandler } from '@sveltejs/kit';
import { referencesIn } from '$lib/server/leads';
import { idOf, orRefuse } from '../../../../answer';

/** The references in the list at the end of a document. */
export const GET: RequestHandler = async (event) =>
  json(await orRefuse(referencesIn(event.locals.ctx, idOf(event))));
