import { nameable, namingWords } from '$lib/server/notes';
import { asks } from '../../../answer';
import { lookOf } from '../../../look';

/** What a note can name: sources and notes that have some words. */
export const POST = asks(namingWords, async ({ words }, ctx, { locals }) => ({
  found: await nameable(ctx, words, await lookOf(locals)),
}));
