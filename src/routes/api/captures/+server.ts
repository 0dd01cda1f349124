import { z } from 'zod';
import { capture, into } from '$lib/server/capture';
import { changes } from '../../answer';

/** Begins the capture of addresses and identifiers; several, one a line, are a job each. */
export const POST = changes(
  into.extend({ text: z.string().trim().min(1).max(40_000), selection: z.string().max(50_000).optional() }),
  async (given, ctx, { locals }) => ({
    jobs: await capture(ctx, { ...(locals.projectId ? { projectId: locals.projectId } : {}), ...given }),
  }),
);
