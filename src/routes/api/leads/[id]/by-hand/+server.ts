import { z } from 'zod';
import { leadByHand } from '$lib/server/services/leads';
import { answer, idOf } from '../../../../answer';

/** Makes a source of a lead by hand. */
export const POST = answer(z.object({}), async (_given, ctx, event) => ({
  id: (await leadByHand(ctx, idOf(event))).id,
}));
