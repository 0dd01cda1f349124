import { shortLabel, toCsl, type CslItem } from '../../core/source';
import type { Context } from '../access/context';
import { getSources, type Source } from '../sources/repository';

/** A work as a draft cites it. */
export interface DraftWork {
  item: CslItem;
  label: string;
  title: string;
  citekey: string;
  /** It lies in the bin. */
  binned: boolean;
}

/**
 * The sources of ids as they are now: where one was merged into another, that one stands for it. Ids that name nothing are
 * left out.
 */
export async function sourcesFor(ctx: Context, ids: readonly string[]): Promise<Map<string, Source>> {
  const found = new Map<string, Source>();
  /** Asked ids by the one to look at now. */
  let looking = new Map([...new Set(ids)].map((id) => [id, [id]]));
  // A survivor may have been merged in its turn; each is looked at once.
  const seen = new Set<string>();
  while (looking.size) {
    const next = new Map<string, string[]>();
    for (const source of await getSources(ctx, [...looking.keys()])) {
      const asked = looking.get(source.id)!;
      seen.add(source.id);
      if (source.mergedInto && !seen.has(source.mergedInto))
        next.set(source.mergedInto, [...(next.get(source.mergedInto) ?? []), ...asked]);
      else for (const id of asked) found.set(id, source);
    }
    looking = next;
  }
  return found;
}

/** The works of ids as they print now, each once by its own id, and which stands for each id. */
export async function worksFor(
  ctx: Context,
  ids: readonly string[],
): Promise<{ works: DraftWork[]; at: Record<string, string> }> {
  const found = await sourcesFor(ctx, ids);
  const works = new Map<string, DraftWork>();
  for (const { id, record, citekey, binned } of found.values())
    works.set(id, {
      item: toCsl(id, record),
      label: shortLabel(record),
      title: record.title ?? '',
      citekey,
      binned: binned !== null,
    });
  return { works: [...works.values()], at: Object.fromEntries([...found].map(([id, s]) => [id, s.id])) };
}
