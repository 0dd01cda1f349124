import { changeOutline, outlineChange } from '$lib/server/projects';
import { changes, idOf } from '../../../../answer';

/** Changes what stands in the sections of a project, and says what takes that back. */
export const POST = changes(outlineChange, (said, ctx, event) => changeOutline(ctx, idOf(event), said));
