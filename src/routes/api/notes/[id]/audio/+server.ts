import { error } from '@sveltejs/kit';
import { readKept } from '$lib/server/files/store';
import { getKept } from '$lib/server/repositories/kept';
import { notes } from '$lib/server/repositories/notes';
import { fileAnswer, orRefuse } from '../../../../answer';
import type { RequestHandler } from './$types';

/** The recording of a spoken note, whole or the part a player asks for. */
export const GET: RequestHandler = async ({ params, locals, request }) => {
  const note = await orRefuse(getKept(locals.ctx, notes, params.id));
  if (!note.audio) error(404, { message: 'This note was typed; there is no recording.' });
  return fileAnswer(await readKept(note.audio.sha256), note.audio.mediaType, request);
};
