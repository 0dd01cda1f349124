import { keepReading, readingSaid } from '$lib/server/reading';
import { changes } from '../../answer';

/** Keeps how far the person is with reading some sources, and how much they matter; says what takes it back. */
export const POST = changes(readingSaid, (said, ctx) => keepReading(ctx, said));
