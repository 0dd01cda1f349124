import { voteWords } from '$lib/core/forms';
import { vote } from '$lib/server/choosing';
import { changes, idOf } from '../../../../answer';

/** Says what one thinks of a candidate, or gives one’s order of all. */
export const POST = changes(voteWords, (said, ctx, event) => vote(ctx, idOf(event), said));
