import { findRequest, findWorks } from '$lib/server/drafts';
import { asks } from '../../../answer';
import { lookOf } from '../../../look';

/** Works and passages that fit what one types to cite them. */
export const POST = asks(findRequest, async (given, ctx, { locals }) =>
  findWorks(ctx, given, await lookOf(locals)),
);
