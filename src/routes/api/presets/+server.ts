import { insertPreset, presetWords } from '$lib/server/repositories/presets';
import { tell } from '$lib/server/events';
import { answer } from '../../answer';

/** Makes a capture preset. */
export const POST = answer(presetWords, async (said, ctx) => {
  const id = await insertPreset(ctx, said);
  tell(ctx.libraryId, { kind: 'changed' });
  return { id };
});
