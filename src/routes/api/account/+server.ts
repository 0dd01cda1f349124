import {
  changeAccount,
  changePhrase,
  endSessions,
  signOut,
  ownAccountChange,
  sessionEnded,
} from '$lib/server/accounts';
import { ofOneself, SESSION_COOKIE } from '../../answer';

/** Changes the account: what one is called, where mail goes, or its pass phrase. */
export const PATCH = ofOneself(ownAccountChange, (said, who, { locals: { db } }) =>
  'next' in said ? changePhrase(db, who, said) : changeAccount(db, who, said),
);

/** Ends sessions: this one, another, or all others. */
export const DELETE = ofOneself(sessionEnded, async ({ session }, who, { locals: { db }, cookies }) => {
  if (session !== 'here' && session !== who.sessionId) return endSessions(db, who, session);
  await signOut(db, who);
  cookies.delete(SESSION_COOKIE, { path: '/' });
});
