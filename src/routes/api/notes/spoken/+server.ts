import { keepSpokenNote, noteWords } from '$lib/server/notes';
import { takesFile, inAddress } from '../../../answer';

/** Keeps a spoken thought: the body is the recording, what was said of it is in the address. */
export const POST = takesFile((bytes, ctx, { request, url }) => {
  const said = inAddress(url, 'said', noteWords);
  const seconds = Number(url.searchParams.get('seconds'));
  const mediaType = request.headers.get('content-type')!.split(';')[0]!.trim().toLowerCase();
  const lasts = Number.isFinite(seconds) && seconds > 0 ? Math.min(Math.round(seconds), 86_400) : null;
  return keepSpokenNote(ctx, { bytes, mediaType, seconds: lasts }, said);
}, /^(?:audio|video)\/[\w.+-]+$/);
