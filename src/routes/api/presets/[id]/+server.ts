import { z } from 'zod';
import { tell } from '$lib/server/events';
import { deletePreset, presetWords, updatePreset } from '$lib/server/repositories/presets';
import { answer, idOf } from '../../../answer';

/** Changes a capture preset, or takes it away; gives the one taken away, so that it can be put back. */
export const POST = answer(
  z.union([z.object({ remove: z.literal(true) }), presetWords]),
  async (given, ctx, event) => {
    const id = idOf(event);
    const removed = 'remove' in given ? await deletePreset(ctx, id) : undefined;
    if (!('remove' in given)) await updatePreset(ctx, id, given);
    tell(ctx.libraryId, { kind: 'changed' });
    return removed ? { removed } : {};
  },
);
