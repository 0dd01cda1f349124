import { z } from 'zod';
import { presetWords } from '$lib/core/forms';
import { changePreset, removePreset } from '$lib/server/presets';
import { changes, idOf } from '../../../answer';

/** Changes a capture preset, or takes it away; gives the one taken away, so that it can be put back. */
export const POST = changes(
  z.union([z.object({ remove: z.literal(true) }), presetWords]),
  async (given, ctx, event) => {
    const id = idOf(event);
    if ('remove' in given) return { removed: await removePreset(ctx, id) };
    await changePreset(ctx, id, given);
    return {};
  },
);
