import { redirect } from '@sveltejs/kit';
import { mailThere } from '$lib/server/mail';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => {
  if (locals.asker) redirect(303, '/');
  if (!mailThere()) redirect(303, '/sign-in');
};
