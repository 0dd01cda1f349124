import { z } from 'zod';
import { MOST_AT_ONCE, toMerge } from './merging';

/** Groups that become one source each. */
export const toMergeAll = z.object({ groups: z.array(toMerge).min(1).max(MOST_AT_ONCE) });
