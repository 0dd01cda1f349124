import { changeTag } from '$lib/server/many';
import { tagChange } from '$lib/server/tags';
import { changes } from '../../answer';

/** Calls a tag otherwise, or takes it off, wherever it is. */
export const POST = changes(tagChange, (said, ctx) => changeTag(ctx, said));
