import { exportFile, exportAsked } from '$lib/server/lists';
import { asks } from '../../answer';

/** A scope as a file, with what the format could not hold. */
export const POST = asks(exportAsked, ({ scope, look, output, setting }, ctx) =>
  exportFile(ctx, scope, look, output, setting),
);
