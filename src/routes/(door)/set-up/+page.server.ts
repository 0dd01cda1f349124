import { redirect } from '@sveltejs/kit';
import { accountsThere } from '$lib/server/accounts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => {
  if (await accountsThere(locals.db)) redirect(303, locals.asker ? '/' : '/sign-in');
  // Alone at one's own machine, an account is made among the members of the library.
  if (locals.asker) redirect(303, '/members');
  return {};
};
