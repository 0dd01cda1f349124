import { json, type RequestHandler } from '@sveltejs/kit';
import { annotationsOfCopy, bringAnnotations } from '$lib/server/passages';
import { idOf, orRefuse, takesFile } from '../../../../answer';

/** The passages of a copy as annotations of the W3C model, in JSON-LD. */
export const GET: RequestHandler = async (event) =>
  json(await orRefuse(annotationsOfCopy(event.locals.ctx, idOf(event))));

/** Annotations of the W3C model, in JSON-LD, as passages of a copy. */
export const POST = takesFile((bytes, ctx, event) => bringAnnotations(ctx, idOf(event), bytes));
