import { z } from 'zod';
import { editPassage, passageWords } from '$lib/server/passages';
import { changes, idOf } from '../../../answer';

/** Changes what was said of a passage, on revision `base`. */
export const PATCH = changes(
  z.object({ base: z.number().int(), said: passageWords }),
  ({ base, said }, ctx, event) => editPassage(ctx, idOf(event), base, said),
);
