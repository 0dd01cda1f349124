import { pictureOf } from '$lib/server/copies';
import { fileAnswer, orRefuse } from '../../../../answer';
import type { RequestHandler } from './$types';

/** A picture of a page, as it was captured with it. */
export const GET: RequestHandler = async ({ params, locals, request }) => {
  const { bytes, mediaType } = await orRefuse(pictureOf(locals.ctx, params.id, params.sha));
  return fileAnswer(bytes, mediaType, request);
};
