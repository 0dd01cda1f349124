import { json } from '@sveltejs/kit';
import { Refusal } from '$lib/server/refusal';
import { importFile } from '$lib/server/services/imports';
import { refused } from '../../answer';
import type { RequestHandler } from './$types';

/** Begins the import of a file of references: the body is the file, its name is in the address. */
export const POST: RequestHandler = async ({ request, url, locals }) => {
  try {
    const job = await importFile(locals.ctx, new Uint8Array(await request.arrayBuffer()), {
      fileName: (url.searchParams.get('name') || 'pasted text').slice(0, 200),
      toIntake: url.searchParams.get('intake') === '1',
      ...(locals.projectId ? { projectId: locals.projectId } : {}),
    });
    return json(job);
  } catch (e) {
    if (e instanceof Refusal) return refused(e);
    throw e;
  }
};
