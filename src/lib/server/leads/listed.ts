import { squash } from '../../core/text';
import { checkHere } from '../access/belongs';
import type { Context } from '../access/context';
import { copiesOf, getCopy } from '../copies/repository';
import { listKept } from '../history/kept';
import { read } from '../workers/pools';
import { brief, hereFor, type Here } from './here';
import { leads } from './repository';

/** A reference in the list of a document: what was read of it, the source in the library it may be, and whether it is a lead. */
export interface ListedReference {
  text: string;
  /** It reads as a reference. */
  likely: boolean;
  who: string;
  title: string;
  year: string;
  here?: Here;
  /** It was put down as a lead before, met in the same source. */
  lead: boolean;
}

/** How many references of one list are gone through. */
const MOST_LISTED = 500;

/** The references in the list a document has; no heading where it has none. `cut` are those behind the first five hundred. */
export interface ListedReferences {
  heading?: string;
  sourceId: string;
  references: ListedReference[];
  cut: number;
}

/** The references in the list at the end of a document that is kept, each looked for among the sources and leads there are. */
export async function referencesIn(ctx: Context, copyId: string): Promise<ListedReferences> {
  const { text, source_id } = await getCopy(ctx, copyId);
  const { heading, references } = await read({ task: 'listed', text });
  const some = references
    .slice(0, MOST_LISTED)
    .map(({ record, ...one }, i) => ({ ...one, id: String(i), parsed: record }));
  const here = await hereFor(ctx, some);
  const kept = new Set(
    (await listKept(ctx, leads, (q) => q.where({ met_in: source_id }).whereNull('binned'))).map((lead) =>
      squash(lead.text),
    ),
  );
  return {
    ...(heading ? { heading } : {}),
    sourceId: source_id,
    references: some.map(({ id, text: words, likely, parsed }) => {
      const found = here.get(id);
      return {
        text: words,
        likely,
        ...brief(parsed),
        // What is met in a document is not that document.
        ...(found && found.id !== source_id ? { here: found } : {}),
        lead: kept.has(squash(words)),
      };
    }),
    cut: Math.max(0, references.length - MOST_LISTED),
  };
}

/** The references in the list of the latest document of a source that has one. */
export async function referencesOf(ctx: Context, sourceId: string): Promise<ListedReferences> {
  await checkHere(ctx, { source: sourceId });
  for (const { id } of await copiesOf(ctx, sourceId)) {
    const found = await referencesIn(ctx, id);
    if (found.heading) return found;
  }
  return { sourceId, references: [], cut: 0 };
}
