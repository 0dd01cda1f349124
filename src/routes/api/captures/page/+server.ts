import { z } from 'zod';
import { captureHandedPage, into } from '$lib/server/capture';
import { changes } from '../../../answer';

const handed = into.extend({
  html: z.string().min(1).max(20_000_000),
  address: z.url({ protocol: /^https?$/ }).max(4_000),
  title: z.string().max(4_000).default(''),
  selection: z.string().max(50_000).optional(),
});

/** Captures a page handed over as the person sees it. */
export const POST = changes(
  handed,
  async ({ html, address, title, selection, ...where }, ctx, { locals }) => {
    const page = { html, address, title, ...(selection?.trim() ? { selection } : {}) };
    return {
      jobs: [
        await captureHandedPage(ctx, page, {
          ...(locals.projectId ? { projectId: locals.projectId } : {}),
          ...where,
        }),
      ],
    };
  },
);
