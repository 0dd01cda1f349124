import { z } from 'zod';
import { shortLabel } from '../../core/source';
import type { Locator } from '../../core/passages';
import type { Context } from '../access/context';
import type { Look } from '../lists/printing';
import { listPassages } from '../passages';
import { listSources } from '../sources';
import { getSources, sourcesByKeys } from '../sources/repository';

/** What one types to cite a work. */
export const findRequest = z.strictObject({
  words: z.string().max(300),
  projectId: z.string().max(60).optional(),
});

/** A work that fits what was typed; or a passage of one, which says where. */
export interface FoundWork {
  id: string;
  label: string;
  title: string;
  citekey: string;
  passage?: { id: string; words: string; locator: Locator | null };
}

/** How many works and how many passages are offered. */
const MOST_WORKS = 8;
const MOST_PASSAGES = 4;

/**
 * Works by words of their authors and titles or by their citekey, those of the project first, and passages by words of
 * theirs. `total`: how many works fit, shown or not.
 */
export async function findWorks(
  ctx: Context,
  { words, projectId }: z.infer<typeof findRequest>,
  look: Look,
): Promise<{ found: FoundWork[]; total: number }> {
  const text = words.trim();
  if (!text) return { found: [], total: 0 };
  const page = { from: { offset: 0 }, limit: MOST_WORKS, sort: 'fit' } as const;
  const [byKey, ofProject, all, passages] = await Promise.all([
    sourcesByKeys(ctx, [text.replace(/^@/, '')]),
    projectId ? listSources(ctx, { text, projectId }, look, page) : undefined,
    listSources(ctx, { text }, look, page),
    listPassages(ctx, { text, ...(projectId ? { projectId } : {}) }, MOST_PASSAGES),
  ]);
  const ids = [
    ...new Set([
      ...byKey.values(),
      ...(ofProject?.items.map((i) => i.id) ?? []),
      ...all.items.map((i) => i.id),
    ]),
  ].slice(0, MOST_WORKS);
  const sources = await getSources(ctx, [...ids, ...passages.items.map((p) => p.sourceId)]);
  const known = new Map(
    sources.map(({ id, record, citekey }) => [
      id,
      { id, label: shortLabel(record), title: record.title ?? '', citekey },
    ]),
  );
  return {
    found: [
      ...ids.flatMap((id) => known.get(id) ?? []),
      ...passages.items.flatMap((p) => {
        const work = known.get(p.sourceId);
        const said = p.exact || p.gist || p.ownWords;
        return work
          ? [{ ...work, passage: { id: p.id, words: said.slice(0, 160), locator: p.locator } }]
          : [];
      }),
    ],
    total: Math.max(all.total, ids.length),
  };
}
