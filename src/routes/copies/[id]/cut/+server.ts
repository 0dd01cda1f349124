import { cutRequest, previewFigure } from '$lib/server/passages';
import { fileAnswer, inAddress, orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

/** A box of a copy (`place`, in JSON) as a picture, to be looked at before it is kept. */
export const GET: RequestHandler = async ({ params, locals, request, url }) => {
  const cut = async () => previewFigure(locals.ctx, params.id, inAddress(url, 'place', cutRequest));
  return fileAnswer(await orRefuse(cut()), 'image/png', request);
};
