import { z } from 'zod';
import { agreeing, proposals, RELATION_LABELS, RELATIONS, type Relation } from '../../core/duplicates';
import { shortLabel, toCsl, type SourceRecord } from '../../core/source';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { copiesOf, type CopyHead } from '../copies/repository';
import { listKept } from '../history/kept';
import { leads } from '../leads/repository';
import { notes } from '../notes/repository';
import { passagesWhere } from '../passages/repository';
import { projectsOf } from '../projects/repository';
import { sectionsOf } from '../projects/sections';
import { getSource, getSources, type Source } from '../sources/repository';
import { talliesOf } from '../sources/tallies';
import { apartAmong, apartPairs, setApart, unsetApart } from './apart';
import { pairsAmong } from './pairs';
import {
  groupsInOrder,
  groupWith,
  membersOf,
  pairsInGroups,
  placeOf,
  sureOnes,
  type SourceGroup,
} from './groups';
import { judgeAnew, merged, MOST_AT_ONCE, type picksOf } from './merging';
import { forgetRelation, relationsOf, sayRelated, sayRelatedAgain, sayUnrelated } from './relations';

export { merge, picksOf, toMerge, undoableMerges, undoMerge, MOST_AT_ONCE } from './merging';
export type { SourceGroup } from './groups';
export { lookThrough, type PassResult } from './pass';
export {
  respell,
  respellEach,
  respellingOf,
  severalSpellings,
  spellingApart,
  spellingDecision,
  spellingNotApart,
  spellingsIn,
  type One,
  type Respelling,
  type SpellingsIn,
} from './respelling';

export * from './requests';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources', 'duplicates'] } as const;

/** How many groups are shown at once; beside them stands how many there are. */
export const GROUPS_SHOWN = 100;

const id = z.string().max(60);
const others = z.array(id).min(1).max(100);
/** What a person says of sources that look like one work, beside merging them. */
export const decision = z.discriminatedUnion('act', [
  z.object({ act: z.literal('apart'), id, others }),
  z.object({ act: z.literal('not-apart'), id, others }),
  z.object({ act: z.literal('relate'), id, others, kind: z.enum(RELATIONS) }),
  z.object({ act: z.literal('unrelate'), id, others }),
  z.object({ act: z.literal('relate-again'), id, others }),
]);

/**
 * The groups of the library (or of a project: one of them in it), sure ones first, with the one that a source asked for is in
 * among them, and how many there are in all. `at` is the place of the one to be shown, counted from the first given.
 */
export async function groupsAround(
  ctx: Context,
  projectId: string | undefined,
  wanted: string | undefined,
): Promise<{ groups: SourceGroup[]; first: number; at: number; total: number; sure: number }> {
  const [{ duplicates: total }, sure] = [await talliesOf(ctx, projectId), await sureOnes(ctx, projectId)];
  const group = wanted ? await groupWith(ctx, wanted) : undefined;
  const place = group ? await placeOf(ctx, group, projectId) : 0;
  const first = Math.max(0, Math.min(place - 2, total - GROUPS_SHOWN));
  const groups = await groupsInOrder(ctx, { projectId, offset: first, limit: GROUPS_SHOWN });
  const at = groups.findIndex((g) => g.id === group?.id);
  return { groups, first, at: at === -1 ? 0 : at, total, sure };
}

/** One source of a group and what hangs on it. */
export interface GroupSource {
  id: string;
  revision: number;
  record: SourceRecord;
  label: string;
  citekey: string;
  added: string;
  address: string | null;
  passages: number;
  copies: CopyHead[];
  projects: number;
  sections: number;
  tags: number;
  notes: number;
  leads: number;
}

async function withHanging(ctx: Context, source: Source): Promise<GroupSource> {
  const { id: sourceId, record, revision, citekey, added } = source;
  const [passages, copies, projects, sections, itsNotes, itsLeads] = await Promise.all([
    passagesWhere(ctx, { source_id: sourceId }),
    copiesOf(ctx, sourceId),
    projectsOf(ctx, sourceId),
    sectionsOf(ctx, sourceId),
    listKept(ctx, notes, (q) => q.where({ source_id: sourceId }).whereNull('binned'), 100),
    listKept(ctx, leads, (q) => q.where({ met_in: sourceId }).whereNull('binned'), 100),
  ]);
  return {
    id: sourceId,
    revision,
    record,
    label: shortLabel(record),
    citekey,
    added,
    address: copies[0]?.address ?? record.URL ?? null,
    passages: passages.length,
    copies,
    projects: projects.length,
    sections: sections.length,
    tags: record.retexa.tags.length,
    notes: itsNotes.length,
    leads: itsLeads.length,
  };
}

/** Some sources of a group laid out for deciding, the first captured first. */
export async function compareGroup(ctx: Context, ids: string[]) {
  const found = (await getSources(ctx, [...ids].sort())).filter((s) => !s.binned && !s.mergedInto);
  const records = found.map((s) => s.record);
  return {
    sources: await Promise.all(found.map((s) => withHanging(ctx, s))),
    proposals: records.length > 1 ? proposals(records) : [],
    same: records.length > 1 ? agreeing(...records) : [],
  };
}
export type GroupComparison = Awaited<ReturnType<typeof compareGroup>>;

/** The sources of a group. */
export const sourcesOfGroup = async (ctx: Context, groupId: string) =>
  compareGroup(ctx, await membersOf(ctx, groupId));

/** How many chosen sources are laid out at once. */
export const MOST_CHOSEN = 10;

/**
 * Sources somebody chose, laid out for deciding as a group is, whatever they were judged to be; with what speaks for and
 * against their being one work.
 */
export async function chosenTogether(ctx: Context, wanted: string[]) {
  const ids = [...new Set(wanted)].sort().slice(0, MOST_CHOSEN);
  const comparison = await compareGroup(ctx, ids);
  const there = new Set(comparison.sources.map((s) => s.id));
  const both = ({ a, b }: { a: string; b: string }) => there.has(a) && there.has(b);
  const pairs = (await pairsAmong(ctx, ids)).filter(both);
  const linked = (await relationsOf(ctx, ids)).filter(both);
  const apart = await apartAmong(ctx, [...there]);
  const against = [
    ...new Set(linked.map(({ kind }) => `linked: ${RELATION_LABELS[kind]}`)),
    ...(apart.size > linked.length ? ['said to be different works'] : []),
  ];
  const reasons = [...new Set(pairs.flatMap((pair) => pair.reasons))];
  return {
    comparison,
    reasons: against.length ? against : reasons.length ? reasons : ['nothing but your choice says so'],
    against: against.length > 0,
  };
}

/** The record a merge would give, for showing how it prints. */
export async function mergedRecord(
  ctx: Context,
  ids: string[],
  picks: z.infer<typeof picksOf>,
): Promise<SourceRecord> {
  const records: SourceRecord[] = [];
  for (const one of ids) records.push((await getSource(ctx, one)).record);
  return merged(records, picks);
}

/** The groups that are surely one work, as many as are merged at once, with what each would become. */
export async function sureGroups(ctx: Context, projectId: string | undefined) {
  const groups = await groupsInOrder(ctx, { projectId, limit: MOST_AT_ONCE, sure: true });
  const found = [];
  for (const group of groups) {
    const sources = await getSources(ctx, await membersOf(ctx, group.id));
    const records = sources.map((s) => s.record);
    found.push({
      id: group.id,
      label: group.label,
      reasons: group.reasons,
      ids: sources.map((s) => s.id),
      bases: sources.map((s) => s.revision),
      item: toCsl(group.id, merged(records, {})),
      doubtful: proposals(records)
        .filter((p) => p.check)
        .map((p) => p.field),
    });
  }
  return { groups: found, total: await sureOnes(ctx, projectId) };
}

/** Says for good that a source is another work than some others. */
export async function keepApart(ctx: Context, one: string, others: string[]): Promise<void> {
  await change(ctx, CHANGE, async (inner) => {
    for (const other of [one, ...others]) await getSource(inner, other);
    for (const other of others) await setApart(inner, one, other);
    await judgeAnew(inner, [one]);
  });
}

/** Takes back that a source is another work than some others. */
export const notApart = (ctx: Context, one: string, others: string[]): Promise<void> =>
  change(ctx, CHANGE, async (inner) => {
    for (const other of others) await unsetApart(inner, one, other);
    await judgeAnew(inner, [one]);
  });

/** Pairs that somebody said are different works, latest first, as far as both are there. */
export async function keptApart(
  ctx: Context,
): Promise<{ a: string; b: string; at: string; labels: [string, string] }[]> {
  const rows = await apartPairs(ctx);
  const called = await titledLabels(ctx, [...new Set(rows.flatMap((r) => [r.a_id, r.b_id]))]);
  return rows
    .filter((r) => called.has(r.a_id) && called.has(r.b_id))
    .map(({ a_id, b_id, at }) => ({ a: a_id, b: b_id, at, labels: [called.get(a_id)!, called.get(b_id)!] }));
}

/** What living sources are called, with their titles. */
async function titledLabels(ctx: Context, ids: string[]): Promise<Map<string, string>> {
  const living = (await getSources(ctx, ids)).filter((s) => !s.binned && !s.mergedInto);
  return new Map(
    living.map(({ id: one, record }) => [one, [shortLabel(record), record.title].filter(Boolean).join(', ')]),
  );
}

/** Says that a source is a work that belongs together with others (which may be one work), and no double of theirs. */
export const relate = (ctx: Context, one: string, to: string[], kind: Relation): Promise<void> =>
  change(ctx, CHANGE, async (inner) => {
    for (const source of [one, ...to]) await getSource(inner, source);
    for (const other of to) {
      await sayRelated(inner, one, other, kind);
      await setApart(inner, one, other);
    }
    await judgeAnew(inner, [one]);
  });

/**
 * Says that a work does not belong together with others: what a person said is taken back, what was judged is not judged
 * again. `again` takes the latter back.
 */
export const unrelate = (ctx: Context, one: string, from: string[], again = false): Promise<void> =>
  change(ctx, CHANGE, async (inner) => {
    for (const source of [one, ...from]) await getSource(inner, source);
    const said = (await relationsOf(inner, [one]))
      .filter((r) => r.said)
      .map((r) => (r.a === one ? r.b : r.a));
    for (const other of from) {
      if (again) await sayRelatedAgain(inner, one, other);
      else if (said.includes(other)) {
        await forgetRelation(inner, one, other);
        await unsetApart(inner, one, other);
      } else await sayUnrelated(inner, one, other);
    }
    if (said.some((other) => from.includes(other))) await judgeAnew(inner, [one]);
  });

/** A work that belongs together with one, and how. */
export interface RelatedSource {
  id: string;
  label: string;
  kind: Relation;
  words: string;
  said: boolean;
}

/** The living works that belong together with a source. */
export async function relatedTo(ctx: Context, one: string): Promise<RelatedSource[]> {
  const relations = await relationsOf(ctx, [one]);
  const called = await titledLabels(
    ctx,
    relations.map((r) => (r.a === one ? r.b : r.a)),
  );
  return relations.flatMap(({ a, b, kind, said }) => {
    const other = a === one ? b : a;
    const label = called.get(other);
    return label === undefined ? [] : [{ id: other, label, kind, words: RELATION_LABELS[kind], said }];
  });
}

/** The sources that look like the work of one that is in the library, as they were judged when it changed. */
export async function doublesOfSource(
  ctx: Context,
  one: string,
): Promise<{ id: string; label: string; reason: string; sure: boolean }[]> {
  const pairs = (await pairsInGroups(ctx, [one])).sort((x, y) => y.score - x.score);
  const others = new Map(
    (
      await getSources(
        ctx,
        pairs.map((p) => (p.a === one ? p.b : p.a)),
      )
    ).map((s) => [s.id, s]),
  );
  return pairs.flatMap((pair) => {
    const other = others.get(pair.a === one ? pair.b : pair.a);
    return other
      ? [
          {
            id: other.id,
            label: shortLabel(other.record),
            reason: pair.reasons.join(', '),
            sure: pair.verdict === 'sure',
          },
        ]
      : [];
  });
}
