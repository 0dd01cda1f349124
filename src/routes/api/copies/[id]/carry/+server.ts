import { carryPassages, carryingTo } from '$lib/server/passages';
import { changes, idOf } from '../../../../answer';

/** Carries the passages of a copy over to another copy of the same source. */
export const POST = changes(carryingTo, ({ to }, ctx, event) => carryPassages(ctx, idOf(event), to));
