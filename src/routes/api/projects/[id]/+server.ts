import { z } from 'zod';
import { localeFile, styleOf } from '$lib/server/catalogue';
import { tell } from '$lib/server/events';
import { updateProject } from '$lib/server/repositories/projects';
import { answer, idOf, look } from '../../../answer';

const change = look.extend({ name: z.string().trim().min(1, 'A project needs a name').max(200) }).partial();

/** Renames a project or changes its style or language. */
export const PATCH = answer(change, async (given, ctx, event) => {
  if (given.style) styleOf(given.style);
  if (given.locale) localeFile(given.locale);
  await updateProject(ctx, idOf(event), given);
  tell(ctx.libraryId, { kind: 'changed' });
});
