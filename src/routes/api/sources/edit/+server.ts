import { z } from 'zod';
import { fieldChangeWords } from '$lib/core/forms';
import { editSources } from '$lib/server/sources';
import { changes, ids } from '../../../answer';

/** Adds a tag to several sources, mends what the proof knows, marks them as checked, or changes one field; all or none. */
export const POST = changes(
  z.object({
    ids,
    tag: z.string().trim().min(1).max(120).optional(),
    fix: z.boolean().optional(),
    checked: z.boolean().optional(),
    change: fieldChangeWords.optional(),
  }),
  ({ ids, ...what }, ctx) => editSources(ctx, ids, what),
);
