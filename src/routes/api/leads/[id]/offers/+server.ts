import { z } from 'zod';
import { lookUp } from '$lib/server/services/leads';
import { answer, idOf } from '../../../../answer';

/** Looks a lead up at the registry of works. */
export const POST = answer(z.object({}), async (_given, ctx, event) => ({
  offers: await lookUp(ctx, idOf(event)),
}));
