import { redirect } from '@sveltejs/kit';
import { withoutControls } from '$lib/core/text';
import { bodyOf } from '$lib/server/http/bodies';
import { MOST_BYTES } from '$lib/server/limits';
import { Refusal } from '$lib/server/access/refusal';
import { keepShared } from '$lib/server/capture';
import { receiveFile } from '$lib/server/copies';
import type { RequestHandler } from './$types';

/** Most characters of a shared text that are taken. */
const MOST_TEXT = 100_000;

async function formOf(request: Request): Promise<FormData> {
  const body = await bodyOf(request, /^multipart\/form-data$/, MOST_BYTES);
  const headers = { 'content-type': request.headers.get('content-type')! };
  return new Response(new Uint8Array(body), { headers }).formData().catch(() => {
    throw new Refusal(422, 'What was shared did not arrive whole. Share it again.');
  });
}

/** Takes what a phone's share sheet sends: files are captured at once, pages and text open in the capture window. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const to = new URLSearchParams();
  try {
    const form = await formOf(request);
    const text = (name: string) => {
      const value = form.get(name);
      return typeof value === 'string' ? withoutControls(value).slice(0, MOST_TEXT) : '';
    };
    const given = { url: text('url'), title: text('title'), text: text('text') };
    if (given.url || given.title || given.text) to.set('shared', await keepShared(locals.changing, given));
    for (const file of form.getAll('files')) {
      if (typeof file === 'string' || file.size === 0) continue;
      const where = locals.projectId ? { projectId: locals.projectId } : {};
      const bytes = new Uint8Array(await file.arrayBuffer());
      to.set('job', (await receiveFile(locals.changing, bytes, file.name, where)).id);
    }
  } catch (e) {
    if (!(e instanceof Refusal)) throw e;
    to.set('trouble', e.message);
  }
  redirect(303, `/capture?${to.toString()}`);
};
