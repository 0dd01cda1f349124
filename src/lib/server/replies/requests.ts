import { z } from 'zod';
import { ids } from '../requests';

/** What somebody looked at of what was said for them, by id. */
export const answersSeen = z.strictObject({ ids });

/** Whether what is asked at a passage is settled. */
export const settling = z.strictObject({ settled: z.boolean() });
