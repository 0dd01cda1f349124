import { recordingOf } from '$lib/server/notes';
import { fileAnswer, orRefuse } from '../../../../answer';
import type { RequestHandler } from './$types';

/** The recording of a spoken note, whole or the part a player asks for. */
export const GET: RequestHandler = async ({ params, locals, request }) => {
  const { bytes, mediaType } = await orRefuse(recordingOf(locals.ctx, params.id));
  return fileAnswer(bytes, mediaType, request);
};
