import { setTagLooks, tagsLook } from '$lib/server/tags';
import { changes } from '../../../answer';

/** Says how tags look, and what group they are in. */
export const POST = changes(tagsLook, (said, ctx) => setTagLooks(ctx, said));
