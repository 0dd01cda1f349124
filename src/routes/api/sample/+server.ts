import { z } from 'zod';
import { addSample } from '$lib/server/imports';
import { changes } from '../../answer';

/** Puts a few invented sources into an empty library, to try things with; gives their ids. */
export const POST = changes(z.object({}), (_given, ctx) => addSample(ctx));
