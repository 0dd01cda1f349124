import { transaction, type Context } from '../access/context';
import { removeSources } from '../bin';
import { forgetAllLists } from '../lists/printing';
import { binSources, undoUnlessChanged } from '../sources';
import { leadNoMore } from '../sources/aliases';
import { hasHanging } from '../sources/hanging';
import { findSource } from '../sources/repository';
import { forgetSteps, lastSteps } from '../jobs/steps';

/**
 * Takes back what an import that did not end well has done, in short transactions, the last first. What it added is
 * removed, unless somebody has worked with it meanwhile: that goes to the bin. What it merged is as it was before, unless
 * it was changed since.
 */
export async function takeStepsBack(ctx: Context, jobId: string): Promise<void> {
  for (;;) {
    const steps = await lastSteps(ctx, jobId, TAKEN_AT_ONCE);
    if (steps.length === 0) return transaction(ctx, forgetAllLists);
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

/** How many steps are taken back in one transaction. */
const TAKEN_AT_ONCE = 25;
