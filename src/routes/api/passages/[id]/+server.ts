import { z } from 'zod';
import { editPassage, passageWords } from '$lib/server/services/passages';
import { answer, idOf } from '../../../answer';

/** Changes what was said of a passage, on revision `base`. */
export const PATCH = answer(
  z.object({ base: z.number().int(), said: passageWords }),
  ({ base, said }, ctx, event) => editPassage(ctx, idOf(event), base, said),
);
