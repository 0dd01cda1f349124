import { printGiven } from '$lib/server/drafts';
import { takesFile } from '../../answer';
import { lookOf } from '../../look';

/** A manuscript that was written elsewhere, printed in the style of the project: the file is the body, its name in the address. */
export const POST = takesFile(async (bytes, ctx, { url, locals }) =>
  printGiven(
    ctx,
    bytes,
    (url.searchParams.get('name') ?? '').slice(0, 200),
    await lookOf(locals),
    locals.projectId,
  ),
);
