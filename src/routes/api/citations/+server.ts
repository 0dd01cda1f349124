import { citeItem } from '$lib/core/drafting';

import { shortLabel } from '$lib/core/source';
import { Refusal } from '$lib/server/access/refusal';
import { getSources } from '$lib/server/sources';
import { printCitation, citationAsked } from '$lib/server/lists';
import { asks } from '../../answer';
import { lookOf } from '../../look';

/** An in-text citation of one or several works, as it prints in the style of the project, and what the works are called. */
export const POST = asks(citationAsked, async ({ works, named }, ctx, { locals }) => {
  const sources = await getSources(
    ctx,
    works.map((w) => w.id),
  );
  const known = new Map(sources.map((s) => [s.id, s]));
  if (works.some((w) => !known.has(w.id)))
    throw new Refusal(404, 'One of these sources is not in the library any more.');
  const printed = await printCitation(
    ctx,
    [...known.values()],
    works.map(citeItem),
    await lookOf(locals),
    named,
  );
  return { ...printed, labels: Object.fromEntries(sources.map((s) => [s.id, shortLabel(s.record)])) };
});
