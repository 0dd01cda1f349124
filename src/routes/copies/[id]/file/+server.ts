import { documentOf } from '$lib/server/copies';
import { error } from '@sveltejs/kit';
import { fileAnswer, orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

/** The document as it was captured, to be shown or, where it cannot be, saved. A page of the web is only shown sanitised. */
export const GET: RequestHandler = async ({ params, locals, request }) => {
  const { copy, bytes } = await orRefuse(documentOf(locals.ctx, params.id));
  if (/html/.test(copy.media_type)) error(404, { message: 'This copy is shown in the reader only.' });
  const shown = copy.kind !== 'page';
  return fileAnswer(bytes, copy.media_type, request, copy.title, shown ? 'inline' : 'attachment');
};
