import { z } from 'zod';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { notHere } from '../access/refusal';
import { inParts } from '../db/ids';
import { inTurn } from '../turns';
import { getPassage, passagesTagged, passageTags, updatePassage } from '../passages/repository';
import { getSources, updateSource } from '../sources/repository';
import { sourcesTagged } from '../sources/tagging';
import { tallied } from '../sources/tallies';
import { carryLook } from './looks';

export { setTagLooks, tagLooks, tagsLook } from './looks';

/** A tag, and what has it. */
export interface TagItem {
  tag: string;
  sources: number;
  passages: number;
}

/** The tags of the library's sources and passages, by name. */
export async function tagsInUse(ctx: Context): Promise<TagItem[]> {
  const sources = await tallied(ctx, 'tag');
  const passages = await passageTags(ctx);
  const found = new Map<string, TagItem>();
  const of = (tag: string) => {
    const item = found.get(tag) ?? { tag, sources: 0, passages: 0 };
    found.set(tag, item);
    return item;
  };
  for (const { value, n } of sources) of(value).sources = n;
  for (const { value, n } of passages) of(value).passages = n;
  return [...found.values()].sort((a, b) => a.tag.localeCompare(b.tag));
}

const name = z.string().trim().min(1, 'A tag has a name').max(120);

/** What is done to a tag wherever it is: it is called otherwise, or taken off. */
export const tagChange = z.discriminatedUnion('act', [
  z.object({ act: z.literal('rename'), tag: name, to: name }),
  z.object({ act: z.literal('take off'), tag: name }),
]);

/** Tags with one of them called otherwise, or without it; one that is there already is there once. */
const changed = (tags: readonly string[], tag: string, to: string | undefined): string[] => [
  ...new Set(tags.flatMap((one) => (one === tag ? (to ?? []) : one))),
];

/**
 * Changes a tag of sources and passages, those in the bin too; all or none. One that is called as another joins with it. Gives
 * the revisions made, for undoing. Passages that only others see are theirs.
 */
export function changeTag(
  ctx: Context,
  said: z.infer<typeof tagChange>,
): Promise<{ revisions: string[]; sources: number; passages: number }> {
  const { tag } = said;
  const to = said.act === 'rename' ? said.to : undefined;
  const why = to ? `tag ${tag} called ${to}` : `tag ${tag} taken off`;
  return change(ctx, { right: 'edit', of: ['sources', 'passages', 'tags'] }, async (inner) => {
    const tagged = await sourcesTagged(inner, tag);
    const marked = await passagesTagged(inner, tag);
    if (tagged.length + marked.length === 0) throw notHere('tag');
    const revisions: string[] = [];
    for (const part of inParts(tagged))
      for await (const { id, revision, record } of inTurn(await getSources(inner, part))) {
        const tags = changed(record.retexa.tags, tag, to);
        const next = { ...record, retexa: { ...record.retexa, tags } };
        const { revisionId } = await updateSource(inner, id, revision, { record: next }, why);
        if (revisionId) revisions.push(revisionId);
      }
    for await (const id of inTurn(marked)) {
      const { revision, tags } = await getPassage(inner, id);
      const { revisionId } = await updatePassage(inner, id, revision, { tags: changed(tags, tag, to) }, why);
      if (revisionId) revisions.push(revisionId);
    }
    if (to) await carryLook(inner, tag, to);
    return { revisions, sources: tagged.length, passages: marked.length };
  });
}
