import { outlineInRequest, readOutlineInto } from '$lib/server/outline';
import { changes, idOf } from '../../../../../answer';

/** Adds the outline of a file to a project, or takes it away again. */
export const POST = changes(outlineInRequest, (said, ctx, event) => readOutlineInto(ctx, idOf(event), said));
