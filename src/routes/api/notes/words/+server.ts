import { writtenOut } from '$lib/server/notes';
import { takesFile } from '../../../answer';

/** The words of a recording, where a service that writes them out is set; the body is the recording. Nothing is kept. */
export const POST = takesFile(async (bytes, ctx, { request }) => {
  const mediaType = request.headers.get('content-type')!.split(';')[0]!.trim().toLowerCase();
  return { text: (await writtenOut(ctx, { bytes, mediaType }))?.text ?? null };
}, /^(?:audio|video)\/[\w.+-]+$/);
