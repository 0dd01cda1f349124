import { nothing } from '$lib/server/requests';
import { lookThrough } from '$lib/server/duplicates';
import { changes } from '../../../answer';

/** Looks through the whole library for works that are in it twice, as a job. */
export const POST = changes(nothing, async (_given, ctx) => ({ job: (await lookThrough(ctx)).id }));
