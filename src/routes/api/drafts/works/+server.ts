import { z } from 'zod';
import { worksFor } from '$lib/server/drafts';
import { asks, ids } from '../../../answer';

/** Works as a draft cites them, by their ids or those of sources that were merged into them. */
export const POST = asks(z.strictObject({ ids }), ({ ids: asked }, ctx) => worksFor(ctx, asked));
