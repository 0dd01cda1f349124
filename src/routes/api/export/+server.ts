import { savedList, exportAsked } from '$lib/server/lists';
import { asks } from '../../answer';

/** A scope as a file, with what the format could not hold. */
export const POST = asks(exportAsked, ({ scope, look, output, setting }, ctx) =>
  savedList(ctx, scope, look, output, setting),
);
