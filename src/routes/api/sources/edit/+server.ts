import { z } from 'zod';
import { editSources } from '$lib/server/sources';
import { changes, ids } from '../../../answer';

/** Adds a tag to several sources, or carries out every fix the proof offers for them; all or none. */
export const POST = changes(
  z.object({ ids, tag: z.string().trim().min(1).max(120).optional(), fix: z.boolean().optional() }),
  ({ ids, ...what }, ctx) => editSources(ctx, ids, what),
);
