import { materialOf, materialRequest } from '$lib/server/drafts';
import { asks } from '../../../answer';

/** What of some passages goes into a draft. */
export const POST = asks(materialRequest, (given, ctx) => materialOf(ctx, given));
