import { json } from '@sveltejs/kit';
import { Refusal } from '$lib/server/refusal';
import { into } from '$lib/server/services/capture';
import { receiveFile } from '$lib/server/services/files';
import { bytesOf, refused } from '../../../answer';
import type { RequestHandler } from './$types';

/** Takes a file handed over: the body is the file, its name and what goes with it are in the address. */
export const POST: RequestHandler = async ({ request, url, locals }) => {
  try {
    const given = into.safeParse(JSON.parse(url.searchParams.get('into') ?? '{}'));
    if (!given.success) throw new Refusal(422, 'The request could not be understood.');
    const name = (url.searchParams.get('name') || 'file').slice(0, 200);
    const where = { ...(locals.projectId ? { projectId: locals.projectId } : {}), ...given.data };
    return json({ jobs: [await receiveFile(locals.ctx, await bytesOf(request), name, where)] });
  } catch (e) {
    if (e instanceof Refusal) return refused(e);
    throw e;
  }
};
