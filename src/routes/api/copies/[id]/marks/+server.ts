import { z } from 'zod';
import { bringMarks } from '$lib/server/passages';
import { changes, idOf } from '../../../../answer';

/** Takes over what other reader programs marked in the PDF of a copy. */
export const POST = changes(z.object({}), (_given, ctx, event) => bringMarks(ctx, idOf(event)));
