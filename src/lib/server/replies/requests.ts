import { ids } from '../requests';
import { z } from 'zod';

/** What somebody looked at of what was said for them, by id. */
export const answersSeen = z.strictObject({ ids });

/** Whether what is asked at a passage is settled. */
export const settling = z.strictObject({ settled: z.boolean() });
