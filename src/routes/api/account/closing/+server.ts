import { json } from '@sveltejs/kit';
import { phraseAsked } from '$lib/core/forms';
import { closeAccount, closingOf } from '$lib/server/libraries';
import { ofOneself, orRefuse, SESSION_COOKIE, signedIn } from '../../../answer';
import type { RequestHandler } from './$types';

/** What would become of what somebody has. */
export const GET: RequestHandler = async ({ locals }) => {
  const who = await orRefuse(Promise.resolve().then(() => signedIn(locals)));
  return json(await closingOf(locals.db, who));
};

/** Closes the account for good. */
export const POST = ofOneself(phraseAsked, async ({ phrase }, who, { locals, cookies }) => {
  await closeAccount(locals.db, who, phrase);
  cookies.delete(SESSION_COOKIE, { path: '/' });
});
