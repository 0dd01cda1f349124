import { previewChange, fieldChangeTried } from '$lib/server/sources';
import { asks } from '../../../answer';

/** What a change of one field would make of some sources. */
export const POST = asks(fieldChangeTried, ({ ids, change }, ctx) => previewChange(ctx, ids, change));
