import { z } from 'zod';
import { accountWords } from '$lib/core/forms';
import { setUp } from '$lib/server/accounts';
import { fromOf, keepSession, opens } from '../../../answer';

/** Makes the first account, and lets its person in. */
export const POST = opens(
  accountWords.extend({ secret: z.string().max(200).default('') }),
  async ({ secret, ...said }, event) =>
    keepSession(event, await setUp(event.locals.db, said, secret, fromOf(event))),
);
