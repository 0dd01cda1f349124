import { lookingAt } from '$lib/server/sources';
import { checkHere } from '$lib/server/access/belongs';
import { looksAt } from '$lib/server/access/here';
import { asks } from '../../answer';

/** Says which source a page looks at, or none any more; gives who looks at it now. Nothing is kept of it. */
export const POST = asks(lookingAt, async ({ page, source }, ctx) => {
  await checkHere(ctx, { source });
  return { people: looksAt(ctx, page, source) };
});
