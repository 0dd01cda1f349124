import { saveQuery, toSave } from '$lib/server/queries';
import { changes } from '../../answer';

/** Keeps a query by a name. */
export const POST = changes(toSave, (said, ctx) => saveQuery(ctx, said));
