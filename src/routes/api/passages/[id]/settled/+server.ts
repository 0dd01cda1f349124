import { settle, settling } from '$lib/server/replies';
import { changes, idOf } from '../../../../answer';

/** Says that what is asked at a passage is settled, or is open again. */
export const POST = changes(settling, ({ settled }, ctx, event) => settle(ctx, idOf(event), settled));
