import { outRequest, writePassages } from '$lib/server/passages';
import { asks } from '../../../answer';
import { lookOf } from '../../../look';

/** Passages as a file, cited in the project's style. */
export const POST = asks(outRequest, async (given, ctx, { locals }) =>
  writePassages(ctx, given, await lookOf(locals)),
);
