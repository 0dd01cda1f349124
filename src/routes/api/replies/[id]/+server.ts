import { changeReply, replyChange } from '$lib/server/replies';
import { changes, idOf } from '../../../answer';

/** Words a reply otherwise, takes it away, or gives it back. */
export const PATCH = changes(replyChange, (said, ctx, event) => changeReply(ctx, idOf(event), said));
