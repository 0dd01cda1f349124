import { presetWords } from '$lib/core/forms';
import { addPreset } from '$lib/server/presets';
import { changes } from '../../answer';

/** Makes a capture preset. */
export const POST = changes(presetWords, (said, ctx) => addPreset(ctx, said));
