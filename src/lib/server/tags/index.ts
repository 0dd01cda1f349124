import { z } from 'zod';
import { tagName } from '../../core/forms';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { notHere } from '../access/refusal';
import { inParts } from '../db/ids';
import { inTurn } from '../turns';
import { getPassage, passagesTagged, passageTags, updatePassage } from '../passages/repository';
import { revisionsOfMade, type MadeOf } from '../sources/editing';
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

/** What is done to a tag wherever it is: it is called otherwise, or taken off. */
export const tagChange = z.discriminatedUnion('act', [
  z.object({ act: z.literal('rename'), tag: tagName, to: tagName }),
  z.object({ act: z.literal('take off'), tag: tagName }),
]);

/** Tags with one of them called otherwise, or without it; one that is there already is there once. */
const changed = (tags: readonly string[], tag: string, to: string | undefined): string[] => [
  ...new Set(tags.flatMap((one) => (one === tag ? (to ?? []) : one))),
];

/** What is done to a tag. */
export type TagChange = z.infer<typeof tagChange>;
/** A source or a passage that has a tag. */
export type Tagged = { source: string } | { passage: string };

/** What has a tag, in the bin too; refuses a tag that nothing has. Passages that only others see are theirs. */
export async function taggedWith(ctx: Context, tag: string): Promise<Tagged[]> {
  const sources = await sourcesTagged(ctx, tag);
  const passages = await passagesTagged(ctx, tag);
  if (sources.length + passages.length === 0) throw notHere('tag');
  return [...sources.map((source) => ({ source })), ...passages.map((passage) => ({ passage }))];
}

/**
 * Changes a tag of sources and passages; all or none. One that is called as another joins with it. Gives the revisions made, for
 * undoing.
 */
export const changeTagOf = (
  ctx: Context,
  said: TagChange,
  tagged: readonly Tagged[],
): Promise<{ revisions: string[] }> =>
  change(ctx, { right: 'edit', of: ['sources', 'passages', 'tags'] }, async (inner) => ({
    revisions: revisionsOfMade(await changeTagOfEach(inner, said, tagged)),
  }));

/** The same in a transaction that is under way, of which nobody is told. */
export async function changeTagOfEach(
  inner: Context,
  said: TagChange,
  tagged: readonly Tagged[],
): Promise<MadeOf[]> {
  const { tag } = said;
  const to = said.act === 'rename' ? said.to : undefined;
  const why = to ? `tag ${tag} called ${to}` : `tag ${tag} taken off`;
  const made: MadeOf[] = [];
  const add = (sourceId: string, revisionId: string | undefined) =>
    revisionId && made.push({ sourceId, revisionId });
  for (const part of inParts(tagged.flatMap((one) => ('source' in one ? one.source : []))))
    for await (const { id, revision, record } of inTurn(await getSources(inner, part))) {
      const tags = changed(record.retexa.tags, tag, to);
      const next = { ...record, retexa: { ...record.retexa, tags } };
      add(id, (await updateSource(inner, id, revision, { record: next }, why)).revisionId);
    }
  for await (const one of inTurn(tagged)) {
    if (!('passage' in one)) continue;
    const { revision, tags } = await getPassage(inner, one.passage);
    const next = { tags: changed(tags, tag, to) };
    add('', (await updatePassage(inner, one.passage, revision, next, why)).revisionId);
  }
  if (to) await carryLook(inner, tag, to);
  return made;
}
