import { z } from 'zod';
import { localeFile, styleOf } from '$lib/server/catalogue';
import { insertProject } from '$lib/server/repositories/projects';
import { answer, look, PROJECT_COOKIE } from '../../answer';

const project = look.extend({ name: z.string().trim().min(1, 'A project needs a name').max(200) });

/** Adds a project and chooses it. */
export const POST = answer(project, async (given, ctx, { cookies }) => {
  styleOf(given.style);
  localeFile(given.locale);
  const made = await insertProject(ctx, given);
  cookies.set(PROJECT_COOKIE, made.id, { path: '/', maxAge: 31_536_000, secure: false });
  return made;
});
