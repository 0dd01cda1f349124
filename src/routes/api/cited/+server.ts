import { citedIn, manuscriptAsked } from '$lib/server/lists';
import { asks } from '../../answer';

/** Which sources a text cites by their citekeys, and which of its keys no source has. */
export const POST = asks(manuscriptAsked, ({ text }, ctx) => citedIn(ctx, text));
