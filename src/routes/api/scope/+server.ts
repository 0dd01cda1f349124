import { z } from 'zod';
import { PROJECT_COOKIE, asks } from '../../answer';

/** Chooses a project for this browser, or the whole library. */
export const POST = asks(
  z.object({ projectId: z.string().nullable() }),
  async ({ projectId }, _ctx, { cookies }) => {
    if (projectId) cookies.set(PROJECT_COOKIE, projectId, { path: '/', maxAge: 31_536_000, secure: false });
    else cookies.delete(PROJECT_COOKIE, { path: '/' });
  },
);
