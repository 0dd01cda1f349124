import { json, type RequestHandler } from '@sveltejs/kit';
import { referencesOf } from '$lib/server/leads';
import { idOf, orRefuse } from '../../../../answer';

/** The references in the list at the end of a document of a source: of the latest that has one. */
export const GET: RequestHandler = async (event) =>
  json(await orRefuse(referencesOf(event.locals.ctx, idOf(event))));
