import { beginPasskey, checkPhrase, confirmPasskey, dropPasskey, passkeyChange } from '$lib/server/accounts';
import { ofOneself, originOf } from '../../../answer';

/** Begins a passkey, keeps the one that was made, or takes one off. */
export const POST = ofOneself(passkeyChange, async (said, who, event): Promise<object | void> => {
  const { db } = event.locals;
  if (said.act === 'begin') {
    await checkPhrase(db, who, said.phrase);
    return beginPasskey(db, who, originOf(event));
  }
  if (said.act === 'confirm') return confirmPasskey(db, who, said, originOf(event));
  return dropPasskey(db, who, said.id);
});
