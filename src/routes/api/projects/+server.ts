import { projectWords } from '$lib/core/forms';
import { addProject } from '$lib/server/projects';
import { changes, PROJECT_COOKIE } from '../../answer';

/** Adds a project and chooses it. */
export const POST = changes(projectWords, async (given, ctx, { cookies }) => {
  const made = await addProject(ctx, given);
  cookies.set(PROJECT_COOKIE, made.id, { path: '/', maxAge: 31_536_000, secure: false });
  return made;
});
