import { z } from 'zod';
import { file } from '$lib/server/projects';
import { changes, ids } from '../../../answer';

/** Files sources in a project or takes them out of it, and says for which that was a change. */
export const POST = changes(
  z.object({ ids, projectId: z.string().max(60), filed: z.boolean() }),
  ({ ids, projectId, filed }, ctx) => file(ctx, projectId, ids, filed),
);
