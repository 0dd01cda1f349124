import { z } from 'zod';
import { exportFile, OUTPUTS } from '$lib/server/services/references';
import { answer, look, scope } from '../../answer';

/** A scope as a file, with what the format could not hold. */
export const POST = answer(
  z.object({ scope, look, output: z.enum(OUTPUTS) }),
  ({ scope, look, output }, ctx) => exportFile(ctx, scope, look, output),
);
