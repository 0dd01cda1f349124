import { z } from 'zod';

/** A candidate, by its source. */
export const candidateAsked = z.object({ id: z.string().max(60) });
