import { z } from 'zod';
import { citedIn } from '$lib/server/lists';
import { asks } from '../../answer';

/** Which sources a text cites by their citekeys, and which of its keys no source has. */
export const POST = asks(z.object({ text: z.string().max(5_000_000) }), ({ text }, ctx) =>
  citedIn(ctx, text),
);
