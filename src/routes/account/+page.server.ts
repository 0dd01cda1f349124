import { accountShown } from '$lib/server/accounts';
import { orRefuse, signedIn } from '../answer';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:members');
  const who = await orRefuse(Promise.resolve().then(() => signedIn(locals)));
  const { name, mail } = who;
  return { account: { name, mail }, ...(await accountShown(locals.ctx.db, who)) };
};
