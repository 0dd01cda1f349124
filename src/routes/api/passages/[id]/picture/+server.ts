import { figurePicture } from '$lib/server/passages';
import { fileAnswer, orRefuse } from '../../../../answer';
import type { RequestHandler } from './$types';

/** The picture of a figure, as it was cut out; with `drawn`, with what is drawn over it. */
export const GET: RequestHandler = async ({ params, locals, request, url }) => {
  const { bytes, mediaType } = await orRefuse(
    figurePicture(locals.ctx, params.id, url.searchParams.has('drawn')),
  );
  return fileAnswer(bytes, mediaType, request);
};
