import { Refusal } from '$lib/server/access/refusal';
import { isMember, scopeChosen } from '$lib/server/libraries';
import { asks, keepLibrary, PROJECT_COOKIE } from '../../answer';

/** Chooses a project for this browser, or the whole library; or another library. */
export const POST = asks(scopeChosen, async (given, ctx, event) => {
  if ('libraryId' in given) {
    if (!(await isMember(ctx, given.libraryId))) throw new Refusal(404, 'You are not in this library.');
    keepLibrary(event, given.libraryId);
  } else if (given.projectId)
    event.cookies.set(PROJECT_COOKIE, given.projectId, { path: '/', maxAge: 31_536_000, secure: false });
  else event.cookies.delete(PROJECT_COOKIE, { path: '/' });
});
