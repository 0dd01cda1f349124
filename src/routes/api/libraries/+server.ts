import { libraryWords } from '$lib/core/forms';
import { addLibrary, renameLibrary } from '$lib/server/libraries';
import { changes, keepLibrary, notByProgram } from '../../answer';

/** Makes another library and opens it. */
export const POST = changes(libraryWords, async (said, ctx, event) => {
  notByProgram(event.locals);
  const made = await addLibrary(ctx, said);
  keepLibrary(event, made.id);
  return made;
});

/** Calls the library otherwise. */
export const PATCH = changes(libraryWords, (said, ctx) => renameLibrary(ctx, said));
