import { linesOf, linesAsked } from '$lib/server/sources';
import { asks } from '../../../answer';

/** The addresses of some sources, or their titles with the notes on them. */
export const POST = asks(linesAsked, ({ ids, what }, ctx) => linesOf(ctx, ids, what));
