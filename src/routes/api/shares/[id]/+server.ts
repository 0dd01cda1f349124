import { z } from 'zod';
import { withdrawShare } from '$lib/server/shares';
import { changes, idOf } from '../../../answer';

/** Withdraws a link. */
export const DELETE = changes(z.strictObject({}), (_given, ctx, event) => withdrawShare(ctx, idOf(event)));
