import { candidateAsked } from '$lib/server/choosing';
import { plain } from '$lib/core/text';
import { copiesOf } from '$lib/server/copies';
import { printEach } from '$lib/server/lists';
import { getSource } from '$lib/server/sources';
import { asks } from '../../../../answer';
import { lookOf } from '../../../../look';

/** What one judges a candidate by: its reference, its abstract, its address and its documents. */
export const POST = asks(candidateAsked, async ({ id }, ctx, { locals }) => {
  const source = await getSource(ctx, id);
  const [[reference], copies] = await Promise.all([
    printEach(ctx, [source], await lookOf(locals)),
    copiesOf(ctx, id),
  ]);
  return {
    reference,
    abstract: plain(source.record.abstract ?? ''),
    address: source.record.URL ?? '',
    copies: copies.map(({ id, kind, media_type }) => ({ id, kind, media_type })),
  };
});
