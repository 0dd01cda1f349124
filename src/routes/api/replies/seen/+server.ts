import { lookedAt, answersSeen } from '$lib/server/replies';
import { changes } from '../../../answer';

/** Puts down that somebody looked at what was said for them. */
export const POST = changes(answersSeen, ({ ids }, ctx) => lookedAt(ctx, ids));
