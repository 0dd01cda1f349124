import { readingCopy } from '$lib/server/passages';
import { orRefuse, savedAnswer } from '../../../answer';
import { lookOf } from '../../../look';
import type { RequestHandler } from './$types';

/** The copy with its passages and notes as a PDF to read on paper, its reference in the style at hand. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const look = await lookOf(locals);
  return savedAnswer(await orRefuse(readingCopy(locals.ctx, params.id, look)), 'application/pdf');
};
