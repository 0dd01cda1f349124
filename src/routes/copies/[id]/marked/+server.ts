import { markedPdf } from '$lib/server/passages';
import { orRefuse, savedAnswer } from '../../../answer';
import type { RequestHandler } from './$types';

/** The PDF of a copy with its passages saved in it as annotations. */
export const GET: RequestHandler = async ({ params, locals }) =>
  savedAnswer(await orRefuse(markedPdf(locals.ctx, params.id)), 'application/pdf');
