import { error } from '@sveltejs/kit';
import { wayBackOf } from '$lib/server/accounts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, params }) => {
  const person = await wayBackOf(locals.db, params.secret);
  if (!person) error(404, 'This way back in was used, or is over. Ask for another.');
  return { name: person.name, secret: params.secret };
};
