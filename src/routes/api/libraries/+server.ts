import { libraryWords } from '$lib/core/forms';
import { addLibrary, deleteLibrary, renameLibrary } from '$lib/server/libraries';
import { changes, keepLibrary, LIBRARY_COOKIE, notByProgram, PROJECT_COOKIE } from '../../answer';

/** Makes another library and opens it. */
export const POST = changes(libraryWords, async (said, ctx, event) => {
  notByProgram(event.locals);
  const made = await addLibrary(ctx, said);
  keepLibrary(event, made.id);
  return made;
});

/** Calls the library otherwise. */
export const PATCH = changes(libraryWords, (said, ctx) => renameLibrary(ctx, said));

/** Deletes the library that is open, for good. */
export const DELETE = changes(libraryWords, async ({ name }, ctx, event) => {
  notByProgram(event.locals);
  await deleteLibrary(ctx, name);
  for (const cookie of [LIBRARY_COOKIE, PROJECT_COOKIE]) event.cookies.delete(cookie, { path: '/' });
});
