import { z } from 'zod';
import { referenceList } from '$lib/server/services/references';
import { answer, look, scope } from '../../answer';

/** A reference list as it prints. */
export const POST = answer(z.object({ scope, look }), ({ scope, look }, ctx) =>
  referenceList(ctx, scope, look),
);
