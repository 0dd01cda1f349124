import { redirect } from '@sveltejs/kit';
import { accountsThere, passkeysThere } from '$lib/server/accounts';
import { mailThere } from '$lib/server/mail';
import type { PageServerLoad } from './$types';

/** Where to go then: a view of this server, and no other site. */
const within = (to: string | null): string => (to && /^\/(?![/\\])/.test(to) ? to : '/');

export const load: PageServerLoad = async ({ locals, url }) => {
  const to = within(url.searchParams.get('to'));
  if (locals.asker) redirect(303, to);
  if (!(await accountsThere(locals.db))) redirect(303, '/set-up');
  return { to, mails: mailThere(), passkeys: await passkeysThere(locals.db) };
};
