import { changePreset, removePreset, presetChange } from '$lib/server/presets';
import { changes, idOf } from '../../../answer';

/** Changes a capture preset, or takes it away; gives the one taken away, so that it can be put back. */
export const POST = changes(presetChange, async (given, ctx, event) => {
  const id = idOf(event);
  if ('remove' in given) return { removed: await removePreset(ctx, id) };
  await changePreset(ctx, id, given);
  return {};
});
