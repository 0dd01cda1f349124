import { error } from '@sveltejs/kit';
import { ROLE_WORDS } from '$lib/core/members';
import { invitationBy } from '$lib/server/libraries';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, params }) => {
  const invited = await invitationBy(locals.db, params.secret);
  if (!invited) error(404, 'This invitation was used or withdrawn, or is over. Ask for another.');
  const { library, by, role, name } = invited;
  return {
    invited: { library, by, name, role: ROLE_WORDS[role] },
    secret: params.secret,
    signedIn: locals.asker?.kind === 'person' ? locals.asker.name : undefined,
  };
};
