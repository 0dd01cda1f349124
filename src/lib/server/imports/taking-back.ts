import { change } from '../access/change';
import { transaction, type Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { removeSources } from '../bin';
import { binSources, undoRevision, undoUnlessChanged } from '../sources';
import { leadNoMore } from '../sources/aliases';
import { binEach, revisionsOfMade, type MadeOf } from '../sources/editing';
import { hasHanging } from '../sources/hanging';
import { findSource } from '../sources/repository';
import type { Job } from '../jobs/repository';
import { forgetSteps, lastSteps } from '../jobs/steps';
import { inTurn } from '../turns';
import type { ImportResult } from './types';

/** How many steps are taken back in one transaction. */
const TAKEN_AT_ONCE = 25;

/**
 * Takes back what an import that did not end well has done, in short transactions, the last first. What it added is
 * removed, unless somebody has worked with it meanwhile: that goes to the bin. What it merged is as it was before, unless
 * it was changed since.
 */
export async function takeStepsBack(ctx: Context, jobId: string): Promise<void> {
  for (;;) {
    const steps = await lastSteps(ctx, jobId, TAKEN_AT_ONCE);
    if (steps.length === 0) return;
    await transaction(ctx, async (inner) => {
      const untouched: string[] = [];
      for (const { sourceId, revisionId, alias, merged } of steps) {
        if (alias) await leadNoMore(inner, alias, sourceId);
        const added = merged ? undefined : await findSource(inner, sourceId);
        if (added?.revision === 1 && !(await hasHanging(inner, sourceId))) untouched.push(sourceId);
        else if (added && !added.binned) await binSources(inner, [sourceId], true);
        else if (revisionId) await undoUnlessChanged(inner, revisionId);
      }
      await removeSources(inner, untouched, true);
      await forgetSteps(
        inner,
        jobId,
        steps.map((s) => s.id),
      );
    });
  }
}

/** What an import did: a source it added, or a revision it made of one that was there. */
export type Imported = { added: string } | { revision: string; label: string };

/** What an import did, as far as it can be taken back, what is taken back first coming first. Refuses what is no import that was kept. */
export function toTakeBack(job: Job): Imported[] {
  const report = job.result as ImportResult | null;
  if (job.kind !== 'import' || report?.kind === 'asks' || !report)
    throw new Refusal(409, 'There is no import to take back here.');
  const merged = [...(report.merged ?? [])].reverse();
  return [
    ...report.added.map(({ id }) => ({ added: id })),
    ...merged.flatMap(({ revision, label }) => (revision ? { revision, label } : [])),
  ];
}

/** What was taken back, and the labels of what was left alone, since it was changed since. */
export interface TakenBack {
  made: MadeOf[];
  left: string[];
}

/**
 * Takes a whole import back: everything it added that is still there goes to the bin, and what it merged is as it was
 * before, unless it was changed since. Gives the revisions made, for undoing, and the labels of what was left alone.
 */
export const takeImportBack = (
  ctx: Context,
  did: readonly Imported[],
): Promise<{ revisions: string[]; left: string[] }> =>
  change(ctx, { right: 'edit', of: ['sources', 'jobs'] }, async (inner) => {
    const { made, left } = await takeBackEach(inner, did);
    return { revisions: revisionsOfMade(made), left };
  });

/** The same in a transaction that is under way, of which nobody is told. */
export async function takeBackEach(inner: Context, did: readonly Imported[]): Promise<TakenBack> {
  const made: MadeOf[] = [];
  const left: string[] = [];
  for await (const one of inTurn(did)) {
    if ('added' in one) {
      const there = await findSource(inner, one.added);
      if (there && !there.binned && !there.mergedInto)
        made.push(...(await binEach(inner, [one.added], true)));
      continue;
    }
    try {
      const undone = await undoRevision(inner, one.revision);
      if (undone) made.push({ sourceId: '', revisionId: undone });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      left.push(one.label);
    }
  }
  return { made, left };
}
