import { z } from 'zod';

/** Leads that go to the bin as one step. */
export const leadsBinned = z.object({ ids: z.array(z.string().max(60)).min(1).max(500) });
