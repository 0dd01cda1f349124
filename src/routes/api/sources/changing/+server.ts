import { z } from 'zod';
import { fieldChangeWords } from '$lib/core/forms';
import { previewChange } from '$lib/server/sources';
import { asks, ids } from '../../../answer';

/** What a change of one field would make of some sources. */
export const POST = asks(z.object({ ids, change: fieldChangeWords }), ({ ids, change }, ctx) =>
  previewChange(ctx, ids, change),
);
