import { toMerge } from './merging';
import { MOST_AT_ONCE } from './merging';
import { z } from 'zod';

/** Groups that become one source each. */
export const toMergeAll = z.object({ groups: z.array(toMerge).min(1).max(MOST_AT_ONCE) });
