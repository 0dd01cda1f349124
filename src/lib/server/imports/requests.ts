import { z } from 'zod';
import { ANSWERS } from './types';

/** What a person does to a job: try again, stop, put away, answer its question, take back what it added. */
export const jobAct = z.discriminatedUnion('act', [
  z.object({ act: z.enum(['retry', 'cancel', 'dismiss', 'take-back', 'take-away', 'keep-both']) }),
  z.object({ act: z.literal('add-copy'), sourceId: z.string().max(60) }),
  z.object({ act: z.literal('decide'), answers: z.record(z.string().regex(/^\d+$/), z.enum(ANSWERS)) }),
  z.object({ act: z.literal('choose'), picks: z.array(z.number().int().min(0)).max(1_000) }),
]);
