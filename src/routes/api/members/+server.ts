import { memberWords } from '$lib/core/forms';
import { addMember } from '$lib/server/libraries';
import { changes } from '../../answer';

/** Adds somebody who has an account here. */
export const POST = changes(memberWords, (said, ctx) => addMember(ctx, said));
