import { toldAsked, toldOfView } from '$lib/server/lists';
import { asks } from '../../../answer';

/** What tells the works of a list apart that would be cited in the same words. */
export const POST = asks(toldAsked, ({ scope, look }, ctx) => toldOfView(ctx, scope, look));
