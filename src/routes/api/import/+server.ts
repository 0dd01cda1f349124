import { importFile } from '$lib/server/imports';
import { takesFile } from '../../answer';

/** Begins the import of a file of references: the body is the file, its name is in the address. */
export const POST = takesFile((bytes, ctx, { url, locals }) =>
  importFile(ctx, bytes, {
    fileName: (url.searchParams.get('name') || 'pasted text').slice(0, 200),
    toIntake: url.searchParams.get('intake') === '1',
    ...(locals.projectId ? { projectId: locals.projectId } : {}),
  }),
);
