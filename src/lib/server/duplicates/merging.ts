import { z } from 'zod';
import { mergeAll, withoutMerge, type MergeField, type Picks } from '../../core/duplicates';
import { fieldName, shortLabel, sourceRecord, type SourceRecord } from '../../core/source';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { changedMeanwhile, Refusal } from '../access/refusal';
import { newId, now } from '../db/ids';
import { revisionsOf, stateAt } from '../history/repository';
import { joinPassages, partPassages } from '../passages/joining';
import { leadNoMore, leadOver } from '../sources/aliases';
import { carryBack, carryOver } from '../sources/hanging';
import {
  getRow,
  getSource,
  getSources,
  openSource,
  setMergedInto,
  updateSource,
  type SourceState,
} from '../sources/repository';
import { inTurn } from '../turns';
import { judge } from './judging';
import { getStep, insertMerge, markUndone, openSteps, type Merge } from './merges';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources', 'duplicates', 'passages', 'notes', 'leads'] } as const;

/** Most sources that become one, and most groups that are merged in one step. */
export const MOST_IN_GROUP = 50;
export const MOST_AT_ONCE = 500;

/** What is picked for fields: the place of a source among those merged, or a value that was typed. */
export const picksOf = z.record(
  z.string().max(60),
  z.union([z.number().int().min(0).max(MOST_IN_GROUP), z.strictObject({ value: z.unknown() })]),
);

/** Sources to be made one: the first survives. `bases` are the revisions the choice was made on. */
export const toMerge = z.object({
  ids: z.array(z.string().max(60)).min(2).max(MOST_IN_GROUP),
  bases: z.array(z.number().int()).min(2).max(MOST_IN_GROUP),
  picks: picksOf.default({}),
});
export type ToMerge = z.input<typeof toMerge>;

/** Judges sources again, when what was said of them changed and not they themselves. */
export async function judgeAnew(ctx: Context, ids: string[]): Promise<void> {
  for (const source of await getSources(ctx, ids))
    await judge(ctx, source.id, source.binned || source.mergedInto ? undefined : source);
}

/** The record several would become; refuses a typed value that no record can hold, by the field's name. */
export function merged(records: readonly SourceRecord[], picks: z.infer<typeof picksOf>): SourceRecord {
  const made = sourceRecord.safeParse(mergeAll(records, picks as Picks, now()));
  if (made.success) return made.data;
  const field = String(made.error.issues[0]?.path[0] ?? '');
  throw new Refusal(422, `${field ? fieldName(field as MergeField) : 'The record'} cannot be that.`);
}

/**
 * Makes one source of several: the first survives with the record made from `picks`; what hangs on the others goes over to
 * it. Those absorbed stay, marked as merged; their ids and citekeys lead to the survivor. Passages that mark the same words
 * become one. One transaction. Gives the id for undoing.
 */
export async function merge(ctx: Context, ...groups: ToMerge[]): Promise<string> {
  if (groups.length > MOST_AT_ONCE)
    throw new Refusal(422, `At most ${MOST_AT_ONCE} groups are merged in one step.`);
  const step = newId();
  const named = groups.flatMap((g) => g.ids);
  if (new Set(named).size !== named.length)
    throw new Refusal(422, 'A source cannot be merged with itself, or into two others.');
  await change(ctx, CHANGE, async (inner) => {
    for await (const group of inTurn(groups)) await mergeOne(inner, toMerge.parse(group), step);
  });
  return step;
}

async function mergeOne(ctx: Context, { ids, bases, picks }: z.infer<typeof toMerge>, step: string) {
  const rows = [];
  for (const id of ids) rows.push(await getRow(ctx, id));
  for (const [i, row] of rows.entries())
    if (row.binned || row.merged_into || row.revision !== bases[i]) throw changedMeanwhile('source');
  const [survivor, ...absorbed] = rows;
  const into = survivor!.id;
  const record = merged(
    rows.map((row) => openSource(row).record),
    picks,
  );
  const checked = rows.map((row) => row.checked).find((at) => at !== null) ?? null;
  const names = absorbed.map((row) => row.citekey).join(', ');
  const { source } = await updateSource(
    ctx,
    into,
    survivor!.revision,
    { record, checked },
    `merged with ${names}`,
  );
  for (const row of absorbed) {
    const hung = await carryOver(ctx, row.id, into);
    await setMergedInto(ctx, openSource(row), into);
    for (const key of [row.id, row.citekey]) await leadOver(ctx, key, into);
    const joined = await joinPassages(ctx, into, hung.went['passage.source_id'] ?? []);
    await insertMerge(ctx, newId(), step, {
      survivor: survivor!,
      absorbed: row,
      mergedRevision: source.revision,
      hung,
      joined,
    });
  }
  // What was kept apart from any of them is kept apart from the survivor.
  await judgeAnew(ctx, [into]);
}

/** What can be undone in one step, newest first. */
export async function undoableMerges(
  ctx: Context,
): Promise<{ id: string; at: string; label: string; citekeys: string[]; works: number }[]> {
  return (await openSteps(ctx)).map(({ id, at, merges }) => ({
    id,
    at,
    label: shortLabel(openSource(merges[0]!.before.survivor).record),
    citekeys: merges.map((m) => m.before.absorbed.citekey),
    works: new Set(merges.map((m) => m.before.survivor.id)).size,
  }));
}

/**
 * Undoes what was merged in one step: the sources and what hung on them are as they were. A survivor's record is restored as a
 * new revision; what was edited in it since, and what came to it, stays there. Gives what stayed edited, in words. Refuses
 * when a survivor went into another source since.
 */
export async function undoMerge(ctx: Context, id: string): Promise<{ edited: string[] }> {
  return change(ctx, CHANGE, async (inner) => {
    const merges = await getStep(inner, id);
    if (merges.some((m) => m.undone)) throw new Refusal(409, 'This merge was already undone.');
    const edited: string[] = [];
    const bySurvivor = new Map<string, Merge[]>();
    for (const m of merges) {
      const into = m.before.survivor.id;
      bySurvivor.set(into, [...(bySurvivor.get(into) ?? []), m]);
    }
    for await (const [into, of] of inTurn([...bySurvivor])) edited.push(...(await undoOne(inner, into, of)));
    return { edited };
  });
}

async function undoOne(ctx: Context, into: string, merges: Merge[]): Promise<string[]> {
  const present = await getSource(ctx, into);
  if (present.mergedInto)
    throw new Refusal(
      409,
      'The merged source went into another one since. Undo that merge first, then this one.',
    );
  const { survivor, mergedRevision } = merges[0]!.before;
  const before = openSource(survivor);
  const { record, citekey, checked, binned } = present;
  const now: SourceState = { record, citekey, checked, binned };
  const then =
    present.revision === mergedRevision ? now : stateAt(now, await revisionsOf(ctx, into), mergedRevision);
  const restored = withoutMerge(before.record, then.record, record);
  const names = merges.map((m) => m.before.absorbed.citekey).join(', ');
  await updateSource(
    ctx,
    into,
    present.revision,
    {
      record: restored.record,
      citekey: citekey === then.citekey ? before.citekey : citekey,
      checked: checked === then.checked ? before.checked : checked,
      binned: binned === then.binned ? before.binned : binned,
    },
    `merge with ${names} undone`,
  );
  for (const { id, before: b } of [...merges].reverse()) {
    for (const key of [b.absorbed.id, b.absorbed.citekey]) await leadNoMore(ctx, key, into);
    await setMergedInto(ctx, openSource(b.absorbed), null);
    await carryBack(ctx, b.absorbed.id, into, b.hung);
    await partPassages(ctx, b.joined ?? []);
    await markUndone(ctx, id);
  }
  await judgeAnew(ctx, [into, ...merges.map((m) => m.before.absorbed.id)]);
  return restored.edited.map((field) => `${shortLabel(restored.record)}: ${fieldName(field)}`);
}
