import { file, filingAsked } from '$lib/server/projects';
import { changes } from '../../../answer';

/** Files sources in a project or takes them out of it, and says for which that was a change. */
export const POST = changes(filingAsked, ({ ids, projectId, filed }, ctx) =>
  file(ctx, projectId, ids, filed),
);
