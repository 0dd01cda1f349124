import { setImmediate } from 'node:timers/promises';
import type { z } from 'zod';
import { may } from '../../core/members';
import { checkRight } from '../access/change';
import { transaction, type Context } from '../access/context';
import { tell } from '../access/events';
import { Refusal } from '../access/refusal';
import { inParts } from '../db/ids';
import { held, letGo } from '../jobs/holds';
import type { Job } from '../jobs/repository';
import { beginJob, carriesOut } from '../jobs/runner';
import { forgetAllBut, forgetSteps, lastSteps, noteSteps, revisionsMade } from '../jobs/steps';
import type { Look } from '../lists/printing';
import { decide, decideEach, type decision } from '../proof';
import { binSources, editSources, undo, undoUnlessChanged } from '../sources';
import { binEach, editEach, type EditOfMany, type MadeOf } from '../sources/editing';
import { checkSources } from '../sources/repository';
import { undoEach } from '../sources/taking-back';
import { inTurn } from '../turns';

/** What is done with many, one after the other. */
export type Asked =
  | { act: 'edit'; what: EditOfMany }
  | { act: 'bin'; binned: boolean }
  | { act: 'decide'; check: string; decided: z.infer<typeof decision>['act']; look: Look }
  | { act: 'undo' };

/** What a job is that does it; of what is held for it. */
export interface ManyInput {
  asked: Asked;
  /** Of how many. */
  of: number;
}
/** How many it changed: what was so already stays as it is. */
export interface ManyResult {
  changed: number;
}
/** What came of it at once, or the job that does it. */
export type Made = { revisions: string[]; left?: number } | { job: string };

/** How many are changed while one waits, in one transaction; more are a job, with others writing between. */
export const MOST_AT_ONCE = 500;
/** How many a job changes in one transaction: others wait no longer than for so many. */
const IN_ONE = 20;
/** How long it goes on before others get a turn, in milliseconds: whoever saves a field meanwhile needs several. */
const TURN = 3;
/** Of how many such jobs it is remembered what they did, for taking it back. */
const REMEMBERED = 10;
/** How often pages are told that something changed, in milliseconds. */
const TOLD_EVERY = 2_000;

const each: {
  [A in Asked['act']]: (
    inner: Context,
    asked: Extract<Asked, { act: A }>,
    ids: string[],
  ) => Promise<MadeOf[]>;
} = {
  edit: (inner, { what }, ids) => editEach(inner, ids, what),
  bin: (inner, { binned }, ids) => binEach(inner, ids, binned),
  decide: (inner, { check, decided, look }, ids) => decideEach(inner, { check, act: decided, ids }, look),
  undo: (inner, _asked, revisions) => undoEach(inner, revisions),
};

/** Takes back what a job did, in short transactions, the last first; what was changed since stays. */
async function takeStepsBack(ctx: Context, jobId: string): Promise<void> {
  for (;;) {
    const steps = await lastSteps(ctx, jobId, IN_ONE);
    if (steps.length === 0) return;
    await setImmediate();
    await transaction(ctx, async (inner) => {
      for (const { revisionId } of steps) if (revisionId) await undoUnlessChanged(inner, revisionId);
      await forgetSteps(
        inner,
        jobId,
        steps.map(({ id }) => id),
      );
    });
  }
}

carriesOut<ManyInput, ManyResult>('many', {
  atOnce: 1,
  words: {
    stopped: 'It was stopped. What was changed is as it was.',
    broken: 'Something went wrong inside Retexa. What was changed is as it was.',
  },
  heldForIt: true,
  async run(ctx, job, doing) {
    const { asked, of } = job.input;
    const ids = (await held<string[]>(ctx, job.id)) ?? [];
    let [gone, changed, told] = [0, 0, Date.now()];
    for await (const part of inTurn(inParts(ids, IN_ONE), TURN)) {
      doing.step(`${(gone + 1).toLocaleString('en')} of ${of.toLocaleString('en')}`, gone, of);
      await transaction(ctx, async (inner) => {
        const made = await each[asked.act](inner, asked as never, part);
        changed += made.length;
        await noteSteps(
          inner,
          job.id,
          made.map((one) => ({ ...one, merged: true })),
        );
      });
      gone += part.length;
      // To tell pages of each part would keep them busy.
      if (Date.now() - told > TOLD_EVERY) {
        tell(ctx.libraryId, 'sources');
        told = Date.now();
      }
    }
    doing.step('Keeping it', of, of);
    return async (inner) => {
      await letGo(inner, job.id);
      await forgetAllBut(inner, 'many', REMEMBERED);
      return { changed };
    };
  },
  takeBack: takeStepsBack,
});

/** Does it at once where it is of few, else as a job, all of it or nothing. */
async function onMany(
  ctx: Context,
  asked: Asked,
  ids: string[],
  atOnce: () => Promise<{ revisions: string[]; left?: number }>,
): Promise<Made> {
  // Who may not edit changes what is theirs, which is never so much.
  if (ids.length <= MOST_AT_ONCE || !may(ctx.role, 'edit')) return atOnce();
  if (asked.act !== 'undo') await checkSources(ctx, ids);
  const { id } = await beginJob(ctx, 'many', { asked, of: ids.length } satisfies ManyInput, ids);
  return { job: id };
}

/** Changes sources, however many; see `editSources`. */
export const editMany = (ctx: Context, ids: string[], what: EditOfMany): Promise<Made> =>
  onMany(ctx, { act: 'edit', what }, [...new Set(ids)], () => editSources(ctx, ids, what));

/** Puts sources in the bin or takes them out, however many. */
export const binMany = (ctx: Context, ids: string[], binned: boolean): Promise<Made> =>
  onMany(ctx, { act: 'bin', binned }, [...new Set(ids)], async () => ({
    revisions: await binSources(ctx, ids, binned),
  }));

/** Mends what a check found in sources, lets it stand, or asks it again, in however many; see `decide`. */
export const decideMany = (ctx: Context, said: z.infer<typeof decision>, look: Look): Promise<Made> =>
  onMany(ctx, { act: 'decide', check: said.check, decided: said.act, look }, [...new Set(said.ids)], () =>
    decide(ctx, said, look),
  );

/** Takes back revisions just made, however many. */
export const undoMany = (ctx: Context, revisions: string[]): Promise<Made> =>
  onMany(ctx, { act: 'undo' }, revisions, () => undo(ctx, revisions));

/** Takes back what a job did, as a job. Each revision must still be the latest of its subject, or nothing is changed. */
export async function takeManyBack(ctx: Context, job: Job): Promise<Made> {
  checkRight(ctx, 'edit');
  const revisions = job.kind === 'many' && job.state !== 'failed' ? await revisionsMade(ctx, job.id) : [];
  if (revisions.length === 0)
    throw new Refusal(409, 'It is not remembered any more what this changed. Look at the history of each.');
  const input: ManyInput = { asked: { act: 'undo' }, of: revisions.length };
  return { job: (await beginJob(ctx, 'many', input, revisions)).id };
}
