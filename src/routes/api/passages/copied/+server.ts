import { copyRequest, passagesToCopy } from '$lib/server/passages';
import { asks } from '../../../answer';
import { lookOf } from '../../../look';

/** Passages as plain and rich text for the clipboard, cited in the project's style. */
export const POST = asks(copyRequest, async ({ ids, layout }, ctx, { locals }) =>
  passagesToCopy(ctx, ids, await lookOf(locals), layout),
);
