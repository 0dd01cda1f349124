import { setImmediate } from 'node:timers/promises';
import type { z } from 'zod';
import { may } from '../../core/members';
import type { CitekeyPattern } from '../../core/source';
import { checkRight } from '../access/change';
import { transaction, type Context } from '../access/context';
import { tell } from '../access/events';
import { Refusal } from '../access/refusal';
import { inParts } from '../db/ids';
import { respell, respellingOf, type One } from '../duplicates';
import { takeImportBack, toTakeBack } from '../imports';
import { held, letGo } from '../jobs/holds';
import type { Job } from '../jobs/repository';
import { beginJob, carriesOut } from '../jobs/runner';
import { forgetAllBut, forgetSteps, lastSteps, noteSteps, revisionsMade } from '../jobs/steps';
import type { Look } from '../lists/printing';
import { renameIn, sourcesToRename, type Renamed } from '../people';
import { decide, type decision } from '../proof';
import { binSources, changeCitekeys, editSources, renewCitekeys, undo, undoUnlessChanged } from '../sources';
import type { EditOfMany } from '../sources/editing';
import { checkSources } from '../sources/repository';
import { changeTagOf, taggedWith, type TagChange } from '../tags';
import { inTurn } from '../turns';
import { DONE_WITH, type Act, type Asked, type AskedFor, type Of } from './acts';

export type { Asked } from './acts';

/** What a job is that does it; of what is held for it. */
export interface ManyInput {
  asked: Asked;
  /** Of how many. */
  of: number;
}
/** How many it changed: what was so already stays as it is. */
export interface ManyResult {
  changed: number;
  /** Labels of what was left alone, since somebody changed it; the first of them. */
  stays?: string[];
}
/** What came of it at once, or the job that does it. */
export type Made = { revisions: string[]; left?: number; stays?: string[] } | { job: string };

/** How many are changed while one waits, in one transaction; more are a job, with others writing between. */
export const MOST_AT_ONCE = 500;
/** How many a job changes in one transaction: others wait no longer than for so many. */
const IN_ONE = 20;
/** How long it goes on before others get a turn, in milliseconds: whoever saves a field meanwhile needs several. */
const TURN = 3;
/** Of how many such jobs it is remembered what they did, for taking it back. */
const REMEMBERED = 10;
/** How many of what was left alone are named. */
const MOST_NAMED = 50;
/** How often pages are told that something changed, in milliseconds. */
const TOLD_EVERY = 2_000;

/** What it changes. */
const CHANGES = ['sources', 'passages', 'tags', 'duplicates'] as const;

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
  changes: CHANGES,
  async run(ctx, job, doing) {
    const { asked, of } = job.input;
    const all = (await held<Of[Act][]>(ctx, job.id)) ?? [];
    const stays: string[] = [];
    let [gone, changed, told] = [0, 0, Date.now()];
    for await (const part of inTurn(inParts(all, IN_ONE), TURN)) {
      doing.step(`${(gone + 1).toLocaleString('en')} of ${of.toLocaleString('en')}`, gone, of);
      await transaction(ctx, async (inner) => {
        const { made, left = [] } = await DONE_WITH[asked.act](inner, asked as never, part as never);
        changed += made.length;
        stays.push(...left);
        await noteSteps(
          inner,
          job.id,
          made.map((one) => ({ ...one, merged: true })),
        );
      });
      gone += part.length;
      // To tell pages of each part would keep them busy.
      if (Date.now() - told > TOLD_EVERY) {
        tell(ctx.libraryId, ...CHANGES);
        told = Date.now();
      }
    }
    doing.step('Keeping it', of, of);
    return async (inner) => {
      await letGo(inner, job.id);
      await forgetAllBut(inner, 'many', REMEMBERED);
      return { changed, ...(stays.length ? { stays: stays.slice(0, MOST_NAMED) } : {}) };
    };
  },
  takeBack: takeStepsBack,
});

/** Does it at once where it is of few, else as a job, all of it or nothing. */
async function onMany<A extends Act>(
  ctx: Context,
  asked: AskedFor<A>,
  all: Of[A][],
  atOnce: (all: Of[A][]) => Promise<{ revisions: string[]; left?: number; stays?: string[] }>,
): Promise<Made> {
  // Who may not edit changes what is theirs, which is never so much.
  if (all.length <= MOST_AT_ONCE || !may(ctx.role, 'edit')) return atOnce(all);
  const { id } = await beginJob(ctx, 'many', { asked, of: all.length } satisfies ManyInput, all);
  return { job: id };
}

/** The same of sources that somebody named. */
async function onNamed<A extends 'edit' | 'bin' | 'decide'>(
  ctx: Context,
  asked: AskedFor<A>,
  named: string[],
  atOnce: (ids: string[]) => Promise<{ revisions: string[]; left?: number }>,
): Promise<Made> {
  const ids = [...new Set(named)];
  if (ids.length > MOST_AT_ONCE) await checkSources(ctx, ids);
  return onMany<'edit' | 'bin' | 'decide'>(ctx, asked, ids, atOnce);
}

/** Changes sources, however many; see `editSources`. */
export const editMany = (ctx: Context, ids: string[], what: EditOfMany): Promise<Made> =>
  onNamed<'edit'>(ctx, { act: 'edit', what }, ids, (all) => editSources(ctx, all, what));

/** Puts sources in the bin or takes them out, however many. */
export const binMany = (ctx: Context, ids: string[], binned: boolean): Promise<Made> =>
  onNamed<'bin'>(ctx, { act: 'bin', binned }, ids, async (all) => ({
    revisions: await binSources(ctx, all, binned),
  }));

/** Mends what a check found in sources, lets it stand, or asks it again, in however many; see `decide`. */
export const decideMany = (ctx: Context, said: z.infer<typeof decision>, look: Look): Promise<Made> =>
  onNamed<'decide'>(ctx, { act: 'decide', check: said.check, decided: said.act, look }, said.ids, () =>
    decide(ctx, said, look),
  );

/** Makes citekeys in another way from now on; the sources named get new keys by it, however many. Changes nothing where one is not here. */
export async function citekeysOfMany(
  ctx: Context,
  pattern: CitekeyPattern,
  renew: string[] = [],
): Promise<Made> {
  const ids = [...new Set(renew)];
  await checkSources(ctx, ids);
  await changeCitekeys(ctx, pattern);
  return onMany<'citekeys'>(ctx, { act: 'citekeys' }, ids, (all) => renewCitekeys(ctx, all));
}

/** Calls a name otherwise in all sources it stands in, in every role. */
export const renameEverywhere = async (ctx: Context, said: Renamed): Promise<Made> =>
  onMany<'rename'>(ctx, { act: 'rename', said }, await sourcesToRename(ctx, said), (ids) =>
    renameIn(ctx, said, ids),
  );

/** Gives several spellings of one name a single one, in however many sources; see `respell`. */
export const respellMany = (ctx: Context, said: One): Promise<Made> =>
  onMany<'respell'>(ctx, { act: 'respell', said: respellingOf(said) }, said.sources, () =>
    respell(ctx, said),
  );

/** Calls a tag otherwise, or takes it off, wherever it is; says of how many sources and passages. */
export async function changeTag(
  ctx: Context,
  said: TagChange,
): Promise<Made & { sources: number; passages: number }> {
  const tagged = await taggedWith(ctx, said.tag);
  const sources = tagged.filter((one) => 'source' in one).length;
  const made = await onMany<'tag'>(ctx, { act: 'tag', said }, tagged, (all) => changeTagOf(ctx, said, all));
  return { ...made, sources, passages: tagged.length - sources };
}

/** Takes back revisions just made, however many. */
export const undoMany = (ctx: Context, revisions: string[]): Promise<Made> =>
  onMany<'undo'>(ctx, { act: 'undo' }, revisions, (all) => undo(ctx, all));

/**
 * Takes back what a job did, as a job. What many were changed by is taken back as a whole: each revision must still be the latest of
 * its subject, or nothing is changed. What an import did is taken back as far as nobody changed it since.
 */
export async function takeJobBack(ctx: Context, job: Job): Promise<Made> {
  checkRight(ctx, 'edit');
  if (job.kind !== 'many') {
    const asked = {
      act: 'import back',
      fileName: (job.input as { fileName?: string }).fileName ?? '',
    } as const;
    return onMany<'import back'>(ctx, asked, toTakeBack(job), async (did) => {
      const { revisions, left } = await takeImportBack(ctx, did);
      return { revisions, left: left.length, stays: left.slice(0, MOST_NAMED) };
    });
  }
  const revisions = job.state === 'failed' ? [] : await revisionsMade(ctx, job.id);
  if (revisions.length === 0)
    throw new Refusal(409, 'It is not remembered any more what this changed. Look at the history of each.');
  const input: ManyInput = { asked: { act: 'undo' }, of: revisions.length };
  return { job: (await beginJob(ctx, 'many', input, revisions)).id };
}
