import { z } from 'zod';
import { withdrawInvitation } from '$lib/server/libraries';
import { changes, idOf } from '../../../answer';

/** Takes an invitation back. */
export const DELETE = changes(z.strictObject({}), (_given, ctx, event) =>
  withdrawInvitation(ctx, idOf(event)),
);
