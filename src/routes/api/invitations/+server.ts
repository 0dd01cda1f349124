import { invitationWords } from '$lib/core/forms';
import { invite, mailInvitation } from '$lib/server/libraries';
import { addressOf, changes } from '../../answer';

/** Makes a link that lets one person in, and sends it where that is asked; says whether it was taken there. */
export const POST = changes(
  invitationWords,
  async (said, ctx, event): Promise<{ secret: string; mailed?: boolean }> => {
    const { secret } = await invite(ctx, said);
    if (!said.mail) return { secret };
    return { secret, mailed: await mailInvitation(ctx, said, addressOf(event, `/invited/${secret}`)) };
  },
);
