import { addReply, replyWords } from '$lib/server/replies';
import { changes, idOf } from '../../../../answer';

/** Says something to a passage. */
export const POST = changes(replyWords, (said, ctx, event) => addReply(ctx, idOf(event), said));
