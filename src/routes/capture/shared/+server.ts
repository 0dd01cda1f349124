import { redirect } from '@sveltejs/kit';
import { Refusal } from '$lib/server/refusal';
import { receiveFile } from '$lib/server/services/files';
import type { RequestHandler } from './$types';

/** Takes what a phone's share sheet sends: files are captured at once, pages and text open in the capture window. */
export const POST: RequestHandler = async ({ request, locals, url }) => {
  const form = await request.formData();
  const text = (name: string) => {
    const value = form.get(name);
    return typeof value === 'string' ? value : '';
  };
  const to = new URL('/capture', url);
  for (const name of ['url', 'title', 'text']) if (text(name)) to.searchParams.set(name, text(name));
  for (const file of form.getAll('files')) {
    if (typeof file === 'string' || file.size === 0) continue;
    try {
      const where = locals.projectId ? { projectId: locals.projectId } : {};
      const job = await receiveFile(locals.ctx, new Uint8Array(await file.arrayBuffer()), file.name, where);
      to.searchParams.set('job', job.id);
    } catch (e) {
      if (!(e instanceof Refusal)) throw e;
      to.searchParams.set('trouble', e.message);
    }
  }
  redirect(303, to.pathname + to.search);
};
