import { proof } from '$lib/core/proof';
import { toCsl } from '$lib/core/source';
import { printCitation, printPreview } from '$lib/server/lists';
import { findingsOf, standingIn } from '$lib/server/proof';
import { previewEdit, getSource, editTried } from '$lib/server/sources';
import { asks, idOf } from '../../../../answer';
import { lookOf } from '../../../../look';

/** How a source would print with an edit that is not saved yet, and what the proof would say. */
export const POST = asks(editTried, async ({ fields }, ctx, event) => {
  const id = idOf(event);
  const record = await previewEdit(ctx, id, { fields });
  const look = await lookOf(event.locals);
  const source = { ...(await getSource(ctx, id)), record, findings: proof(record) };
  const [[reference], citation, findings] = await Promise.all([
    printPreview(ctx, [toCsl(id, record)], look),
    printCitation(ctx, [source], [{ id }], look),
    findingsOf(ctx, source, look),
  ]);
  return { reference, citation, findings, standing: standingIn(record) };
});
