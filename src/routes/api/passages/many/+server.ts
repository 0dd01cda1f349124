import { changeMany, manyRequest } from '$lib/server/passages';
import { changes } from '../../../answer';

/** Does the same to several passages: tags them, files them under a section, puts them in the bin. */
export const POST = changes(manyRequest, ({ ids, ...act }, ctx) => changeMany(ctx, ids, act));
