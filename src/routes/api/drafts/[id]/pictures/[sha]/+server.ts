import { draftPicture } from '$lib/server/drafts';
import { fileAnswer, orRefuse } from '../../../../../answer';
import type { RequestHandler } from './$types';

/** A picture of one’s own in a draft. */
export const GET: RequestHandler = async ({ params, locals, request }) => {
  const { bytes, mediaType } = await orRefuse(draftPicture(locals.ctx, params.id, params.sha));
  return fileAnswer(bytes, mediaType, request);
};
