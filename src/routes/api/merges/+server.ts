import { z } from 'zod';
import { merge, MOST_AT_ONCE, toMerge } from '$lib/server/duplicates';
import { changes } from '../../answer';

/** Merges one group or several, in one step that is undone in one. */
export const POST = changes(
  z.object({ groups: z.array(toMerge).min(1).max(MOST_AT_ONCE) }),
  async ({ groups }, ctx) => ({ merge: await merge(ctx, ...groups) }),
);
