import { listOfView, listAsked } from '$lib/server/lists';
import { asks } from '../../answer';

/** A reference list as it prints, for a view that is open. */
export const POST = asks(listAsked, ({ view, scope, look, setting }, ctx) =>
  listOfView(ctx, view, scope, look, setting),
);
