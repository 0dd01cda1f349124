import { documentOf } from '$lib/server/copies';
import { error } from '@sveltejs/kit';
import { fileAnswer, orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

/** The document as it was captured: a PDF or a picture. A page of the web is only shown sanitised. */
export const GET: RequestHandler = async ({ params, locals, request }) => {
  const { copy, bytes } = await orRefuse(documentOf(locals.ctx, params.id));
  if (copy.kind !== 'pdf' && copy.kind !== 'image')
    error(404, { message: 'This copy is shown in the reader only.' });
  return fileAnswer(bytes, copy.media_type, request, copy.title);
};
