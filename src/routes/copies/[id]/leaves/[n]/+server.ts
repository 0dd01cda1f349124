import { leafPicture } from '$lib/server/copies';
import { fileAnswer, orRefuse } from '../../../../answer';
import type { RequestHandler } from './$types';

/** One leaf of a document as a picture, for the reader to set the text on. */
export const GET: RequestHandler = async ({ params, locals, request, url }) => {
  const { bytes, mediaType } = await orRefuse(
    leafPicture(locals.ctx, params.id, Number(params.n), url.searchParams.has('small')),
  );
  return fileAnswer(bytes, mediaType, request);
};
