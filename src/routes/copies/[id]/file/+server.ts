import { readKept } from '$lib/server/files/store';
import { getCopy } from '$lib/server/repositories/copies';
import { error } from '@sveltejs/kit';
import { fileAnswer, orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

/** The document as it was captured: a PDF or a picture. A page of the web is only shown sanitised. */
export const GET: RequestHandler = async ({ params, locals, request }) => {
  const copy = await orRefuse(getCopy(locals.ctx, params.id));
  if (copy.kind !== 'pdf' && copy.kind !== 'image')
    error(404, { message: 'This copy is shown in the reader only.' });
  return fileAnswer(await readKept(copy.sha256), copy.media_type, request, copy.title);
};
