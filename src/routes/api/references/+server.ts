import { z } from 'zod';
import { listOfView } from '$lib/server/lists';
import { asks, look, scope, setting } from '../../answer';

/** A reference list as it prints, for a view that is open. */
export const POST = asks(
  z.object({ view: z.string().max(60), scope, look, setting: setting.default({}) }),
  ({ view, scope, look, setting }, ctx) => listOfView(ctx, view, scope, look, setting),
);
