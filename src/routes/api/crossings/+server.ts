import { z } from 'zod';
import { bringTo, crossingRequest, takeBack } from '$lib/server/crossing';
import { changes, ids } from '../../answer';

/** Brings sources to another library. */
export const POST = changes(crossingRequest, (said, ctx) => bringTo(ctx, said));

/** Takes that back. */
export const DELETE = changes(
  z.strictObject({ libraryId: z.string().max(60), ids, moved: ids }),
  (said, ctx) => takeBack(ctx, said),
);
