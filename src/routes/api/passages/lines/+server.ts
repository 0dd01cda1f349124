import { linesInPhoto } from '$lib/server/passages';
import { takesFile } from '../../../answer';

/** The lines of text in a photo of a page, to pick the wanted ones from; the body is the picture, and nothing is kept. */
export const POST = takesFile(async (bytes, ctx) => ({ lines: await linesInPhoto(ctx, bytes) }));
