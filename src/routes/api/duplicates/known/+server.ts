import { byHandWords } from '$lib/core/forms';
import { doublesByHand } from '$lib/server/capture';
import { asks } from '../../../answer';

/** Sources there are that look like the one somebody is about to start by hand. */
export const POST = asks(byHandWords, async (given, ctx) => ({ doubles: await doublesByHand(ctx, given) }));
