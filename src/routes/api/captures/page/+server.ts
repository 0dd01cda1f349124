import { captureHandedPage, pageHanded } from '$lib/server/capture';
import { changes } from '../../../answer';

/** Captures a page pageHanded over as the person sees it. */
export const POST = changes(
  pageHanded,
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
