import { z } from 'zod';
import { lookThrough } from '$lib/server/duplicates';
import { changes } from '../../../answer';

/** Looks through the whole library for works that are in it twice, as a job. */
export const POST = changes(z.object({}), async (_given, ctx) => ({ job: (await lookThrough(ctx)).id }));
