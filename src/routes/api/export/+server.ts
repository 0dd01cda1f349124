import { z } from 'zod';
import { exportFile, OUTPUTS } from '$lib/server/lists';
import { asks, look, scope, setting } from '../../answer';

/** A scope as a file, with what the format could not hold. */
export const POST = asks(
  z.object({ scope, look, output: z.enum(OUTPUTS), setting: setting.optional() }),
  ({ scope, look, output, setting }, ctx) => exportFile(ctx, scope, look, output, setting),
);
