import { attachFile } from '$lib/server/capture';
import { idOf, takesFile } from '../../../../answer';

/** Takes a document as a copy of a source there is: the body is the file, its name is in the address. */
export const POST = takesFile(async (bytes, ctx, event) => {
  const name = (event.url.searchParams.get('name') || 'the file').slice(0, 200);
  const { id } = await attachFile(ctx, idOf(event), bytes, name);
  return { jobs: [{ id }] };
});
