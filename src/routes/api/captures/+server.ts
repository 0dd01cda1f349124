import { z } from 'zod';
import { capture } from '$lib/server/services/capture';
import { answer } from '../../answer';

/** Begins a capture of an address or a DOI. */
export const POST = answer(
  z.object({ text: z.string().trim().min(1).max(4_000) }),
  async ({ text }, ctx, { locals }) =>
    capture(ctx, { text, ...(locals.projectId ? { projectId: locals.projectId } : {}) }),
);
