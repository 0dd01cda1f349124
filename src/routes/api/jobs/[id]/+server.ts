import { z } from 'zod';
import { dismissJob, getJob, retryJob, stopJob } from '$lib/server/jobs';
import { answerHere, answerList, undoAddition } from '$lib/server/capture';
import { ANSWERS, answerImport, takeImportBack } from '$lib/server/imports';
import { json } from '@sveltejs/kit';
import { changes, idOf, orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

const act = z.discriminatedUnion('act', [
  z.object({ act: z.enum(['retry', 'cancel', 'dismiss', 'take-back', 'take-away', 'keep-both']) }),
  z.object({ act: z.literal('add-copy'), sourceId: z.string().max(60) }),
  z.object({ act: z.literal('decide'), answers: z.record(z.string().regex(/^\d+$/), z.enum(ANSWERS)) }),
  z.object({ act: z.literal('choose'), picks: z.array(z.number().int().min(0)).max(1_000) }),
]);

/** How a job stands. */
export const GET: RequestHandler = async ({ params, locals }) =>
  json(await orRefuse(getJob(locals.ctx, params.id)));

/** What a person does to a job: try again, stop, put away, answer its question, take back what an import added. */
export const POST = changes(act, async (given, ctx, event) => {
  const id = idOf(event);
  switch (given.act) {
    case 'retry':
      return retryJob(ctx, id);
    case 'keep-both':
      return answerHere(ctx, id, 'both');
    case 'take-away':
      return undoAddition(ctx, id);
    case 'add-copy':
      return answerHere(ctx, id, { sourceId: given.sourceId });
    case 'choose':
      return answerList(ctx, id, given.picks);
    case 'decide':
      return answerImport(ctx, id, given.answers);
    case 'cancel':
      return stopJob(ctx, id);
  }
  if (given.act === 'take-back') return takeImportBack(ctx, await getJob(ctx, id));
  return dismissJob(ctx, id);
});
