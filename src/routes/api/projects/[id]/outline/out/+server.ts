import { outlineOutRequest, writeOutline } from '$lib/server/outline';
import { asks, idOf } from '../../../../../answer';
import { lookOf } from '../../../../../look';

/** The outline of a project as a file, cited in its style. */
export const POST = asks(outlineOutRequest, async (given, ctx, event) =>
  writeOutline(ctx, idOf(event), given, await lookOf(event.locals)),
);
