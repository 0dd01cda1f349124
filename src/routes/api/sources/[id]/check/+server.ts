import { z } from 'zod';
import { checkSource } from '$lib/server/services/sources';
import { answer, idOf } from '../../../../answer';

/** Marks a source as checked or sends it back to Intake. */
export const POST = answer(
  z.object({ base: z.number().int(), checked: z.boolean() }),
  async ({ base, checked }, ctx, event) => {
    const { revisionId } = await checkSource(ctx, idOf(event), base, checked);
    return { revisionId };
  },
);
