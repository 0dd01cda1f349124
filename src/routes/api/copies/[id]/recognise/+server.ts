import { recogniseAgain, recogniseRequest } from '$lib/server/passages';
import { changes, idOf } from '../../../../answer';

/** Begins to recognise the text of a scanned copy in the languages it is in; gives the work’s id. */
export const POST = changes(recogniseRequest, async ({ languages }, ctx, event) => ({
  job: (await recogniseAgain(ctx, idOf(event), languages)).id,
}));
