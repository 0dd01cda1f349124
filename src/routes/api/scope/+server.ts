import { z } from 'zod';
import { Refusal } from '$lib/server/access/refusal';
import { isMember } from '$lib/server/libraries';
import { asks, keepLibrary, PROJECT_COOKIE } from '../../answer';

/** Chooses a project for this browser, or the whole library; or another library. */
export const POST = asks(
  z.union([z.object({ projectId: z.string().nullable() }), z.object({ libraryId: z.string() })]),
  async (given, ctx, event) => {
    if ('libraryId' in given) {
      if (!(await isMember(ctx, given.libraryId))) throw new Refusal(404, 'You are not in this library.');
      keepLibrary(event, given.libraryId);
    } else if (given.projectId)
      event.cookies.set(PROJECT_COOKIE, given.projectId, { path: '/', maxAge: 31_536_000, secure: false });
    else event.cookies.delete(PROJECT_COOKIE, { path: '/' });
  },
);
