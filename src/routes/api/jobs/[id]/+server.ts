import { dismissJob, getJob, retryJob, stopJob } from '$lib/server/jobs';
import { answerHere, answerList, undoAddition } from '$lib/server/capture';
import { answerImport, jobAct } from '$lib/server/imports';
import { takeJobBack } from '$lib/server/many';
import { json } from '@sveltejs/kit';
import { changes, idOf, orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

/** How a job stands. */
export const GET: RequestHandler = async ({ params, locals }) =>
  json(await orRefuse(getJob(locals.ctx, params.id)));

/** What a person does to a job: try again, stop, put away, answer its question, take back what an import added or what many were changed by. */
export const POST = changes(jobAct, async (given, ctx, event) => {
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
  if (given.act === 'dismiss') return dismissJob(ctx, id);
  return takeJobBack(ctx, await getJob(ctx, id));
});
