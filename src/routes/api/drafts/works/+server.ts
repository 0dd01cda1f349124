import { worksFor, worksAsked } from '$lib/server/drafts';
import { asks } from '../../../answer';

/** Works as a draft cites them, by their ids or those of sources that were merged into them. */
export const POST = asks(worksAsked, ({ ids: asked }, ctx) => worksFor(ctx, asked));
