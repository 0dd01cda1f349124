import { z } from 'zod';
import { forgetQuery } from '$lib/server/queries';
import { changes, idOf } from '../../../answer';

/** Lets go of a kept query, and gives it. */
export const DELETE = changes(z.object({}), (_, ctx, event) => forgetQuery(ctx, idOf(event)));
