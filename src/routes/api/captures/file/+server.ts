import { into } from '$lib/server/capture';
import { receiveFile } from '$lib/server/copies';
import { takesFile, inAddress } from '../../../answer';

/** Takes a file handed over: the body is the file, its name and what goes with it are in the address. */
export const POST = takesFile(async (bytes, ctx, { url, locals }) => {
  const name = (url.searchParams.get('name') || 'file').slice(0, 200);
  const where = {
    ...(locals.projectId ? { projectId: locals.projectId } : {}),
    ...inAddress(url, 'into', into),
  };
  return { jobs: [await receiveFile(ctx, bytes, name, where)] };
});
