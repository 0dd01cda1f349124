import { forgottenWords } from '$lib/core/forms';
import { mailWayBack } from '$lib/server/accounts';
import { addressOf, fromOf, opens } from '../../../answer';

/** Sends a way back in by mail; answered the same whether there is such an account or not. */
export const POST = opens(forgottenWords, async ({ mail }, event) => {
  await mailWayBack(event.locals.db, mail, fromOf(event), (secret) =>
    addressOf(event, `/way-back/${secret}`),
  );
});
