import { capture, captureAsked } from '$lib/server/capture';
import { changes } from '../../answer';

/** Begins the capture of addresses and identifiers; several, one a line, are a job each. */
export const POST = changes(captureAsked, async (given, ctx, { locals }) => ({
  jobs: await capture(ctx, { ...(locals.projectId ? { projectId: locals.projectId } : {}), ...given }),
}));
