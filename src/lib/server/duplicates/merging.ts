import { mergeRecords } from '../../core/duplicates';
import { shortLabel } from '../../core/source';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { changedMeanwhile, Refusal } from '../access/refusal';
import { newId, now } from '../db/ids';
import { leadNoMore, leadOver } from '../sources/aliases';
import { carryBack, carryOver, type Hung } from '../sources/hanging';
import {
  getRow,
  getSource,
  getSources,
  openSource,
  setMergedInto,
  updateSource,
} from '../sources/repository';
import type { Picks } from './index';
import { getMerge, insertMerge, markUndone, openMerges, type Before } from './merges';
import { judge } from './repository';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources', 'duplicates', 'passages', 'notes', 'leads'] } as const;

/** Judges sources again, when what was said of them changed and not they themselves. */
export async function judgeAnew(ctx: Context, ids: string[]): Promise<void> {
  for (const source of await getSources(ctx, ids))
    await judge(ctx, source.id, source.binned || source.mergedInto ? undefined : source);
}

/**
 * Makes one source of two: `a` survives with the record made from `picks`; what hangs on `b` goes over to it. The absorbed
 * source stays, marked as merged; its id and citekey lead to the survivor. One transaction. `bases` are the revisions the
 * choice was made on. Gives the id for undoing.
 */
export async function merge(
  ctx: Context,
  a: string,
  b: string,
  picks: Picks,
  bases: [number, number],
): Promise<string> {
  if (a === b) throw new Refusal(422, 'A source cannot be merged with itself.');
  const id = newId();
  await change(ctx, CHANGE, async (inner) => {
    const [survivor, absorbed] = [await getRow(inner, a), await getRow(inner, b)];
    for (const [i, row] of [survivor, absorbed].entries())
      if (row.binned || row.merged_into || row.revision !== bases[i]) throw changedMeanwhile('source');
    const record = mergeRecords(openSource(survivor).record, openSource(absorbed).record, picks, now());
    const { source } = await updateSource(
      inner,
      a,
      survivor.revision,
      { record, checked: survivor.checked ?? absorbed.checked },
      `merged with ${absorbed.citekey}`,
    );
    const hung: Hung = await carryOver(inner, b, a);
    await setMergedInto(inner, openSource(absorbed), a);
    for (const key of [absorbed.id, absorbed.citekey]) await leadOver(inner, key, a);
    // What was kept apart from either is kept apart from the survivor.
    await judgeAnew(inner, [a]);
    await insertMerge(inner, id, { survivor, absorbed, mergedRevision: source.revision, hung });
  });
  return id;
}

/** Merges that can be undone, newest first. */
export async function undoableMerges(
  ctx: Context,
): Promise<{ id: string; at: string; label: string; citekey: string }[]> {
  return (await openMerges(ctx)).map(({ id, at, before: { survivor, absorbed } }) => ({
    id,
    at,
    label: shortLabel(openSource(survivor).record),
    citekey: absorbed.citekey,
  }));
}

/**
 * Undoes a merge: both sources and what hung on them are as they were. The survivor's record is restored as a new
 * revision, so that nothing printed or cached of the merged one is taken for it; what came to the survivor since stays
 * there. Refuses when the survivor was edited or merged again since.
 */
export async function undoMerge(ctx: Context, id: string): Promise<void> {
  await change(ctx, CHANGE, async (inner) => {
    const row = await getMerge(inner, id);
    if (row.undone) throw new Refusal(409, 'This merge was already undone.');
    const { survivor, absorbed, mergedRevision, hung }: Before = row.before;
    const present = await getSource(inner, survivor.id);
    if (present.revision !== mergedRevision || present.mergedInto)
      throw new Refusal(
        409,
        'The merged source was changed since. Undoing the merge would lose that change: first take it back in the source’s history, then undo the merge.',
      );
    const { record, citekey, checked, binned } = openSource(survivor);
    await updateSource(
      inner,
      survivor.id,
      mergedRevision,
      { record, citekey, checked, binned },
      `merge with ${absorbed.citekey} undone`,
    );
    for (const key of [absorbed.id, absorbed.citekey]) await leadNoMore(inner, key, survivor.id);
    await setMergedInto(inner, openSource(absorbed), null);
    await carryBack(inner, absorbed.id, survivor.id, hung);
    await judgeAnew(inner, [survivor.id, absorbed.id]);
    await markUndone(inner, id);
  });
}
