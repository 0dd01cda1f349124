import { z } from 'zod';
import { lookedAt } from '$lib/server/replies';
import { changes, ids } from '../../../answer';

/** Puts down that somebody looked at what was said for them. */
export const POST = changes(z.strictObject({ ids }), ({ ids }, ctx) => lookedAt(ctx, ids));
