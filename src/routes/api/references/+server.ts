import { z } from 'zod';
import { referenceList } from '$lib/server/services/references';
import { answer, look, scope, setting } from '../../answer';

/** A reference list as it prints. */
export const POST = answer(
  z.object({ scope, look, setting: setting.optional() }),
  ({ scope, look, setting }, ctx) => referenceList(ctx, scope, look, setting),
);
