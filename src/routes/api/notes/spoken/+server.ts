import { json } from '@sveltejs/kit';
import { Refusal } from '$lib/server/refusal';
import { keepSpokenNote, noteWords } from '$lib/server/services/notes';
import { bytesOf, refused } from '../../../answer';
import type { RequestHandler } from './$types';

/** Keeps a spoken thought: the body is the recording, what was said of it is in the address. */
export const POST: RequestHandler = async ({ request, url, locals }) => {
  try {
    const said = noteWords.safeParse(JSON.parse(url.searchParams.get('said') ?? '{}'));
    if (!said.success) throw new Refusal(422, 'The request could not be understood.');
    const seconds = Number(url.searchParams.get('seconds'));
    const mediaType = (request.headers.get('content-type') ?? '').split(';')[0]!;
    return json(
      await keepSpokenNote(
        locals.ctx,
        {
          bytes: await bytesOf(request),
          mediaType: /^audio\/[\w.+-]+$/.test(mediaType) ? mediaType : 'audio/webm',
          seconds: Number.isFinite(seconds) && seconds > 0 ? Math.round(seconds) : null,
        },
        said.data,
      ),
    );
  } catch (e) {
    if (e instanceof Refusal) return refused(e);
    throw e;
  }
};
