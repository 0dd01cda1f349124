import { invitationWords } from '$lib/core/forms';
import { invite } from '$lib/server/libraries';
import { changes } from '../../answer';

/** Makes a link that lets one person in. */
export const POST = changes(invitationWords, (said, ctx) => invite(ctx, said));
