import { z } from 'zod';
import { binLeads } from '$lib/server/leads';
import { changes } from '../../../answer';

/** Puts several leads in the bin as one step. */
export const POST = changes(
  z.object({ ids: z.array(z.string().max(60)).min(1).max(500) }),
  async ({ ids }, ctx) => ({ revisions: await binLeads(ctx, ids) }),
);
