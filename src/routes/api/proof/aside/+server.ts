import { askIn, toAsk } from '$lib/server/proof';
import { changes } from '../../../answer';

/** Has the chosen project not ask a check, or ask it again. */
export const POST = changes(toAsk, ({ check, aside }, ctx, { locals }) =>
  askIn(ctx, locals.projectId, check, aside),
);
