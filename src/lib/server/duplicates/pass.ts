import { transaction, type Context } from '../access/context';
import { tell } from '../access/events';
import { beginJob, carriesOut } from '../jobs/runner';
import type { Job } from '../jobs/repository';
import { livingIdsAfter } from '../sources/repository';
import { talliesOf } from '../sources/tallies';
import { judgeAnew } from './merging';

/** What came of looking through a library. */
export interface PassResult {
  looked: number;
  groups: number;
}

/** How many sources are judged in one transaction: others write between them. */
const AT_ONCE = 20;

/**
 * Judges every source of the library again: what has become rarer since, as others left, tells more now. Each few are a
 * transaction of their own, so that one that is stopped has done what it has done, and is right as far as it came.
 */
carriesOut<null, PassResult>('doubles', {
  atOnce: 1,
  words: {
    stopped: 'Stopped. What was looked through by then is up to date.',
    broken:
      'Something went wrong inside Retexa while looking for duplicates. Nothing was lost; try it again.',
  },
  async run(ctx, _job, doing) {
    const { sources: total } = await talliesOf(ctx);
    let looked = 0;
    for (let after = ''; ;) {
      doing.step('Looking for works that are here twice', looked, Math.max(total, looked));
      const ids = await livingIdsAfter(ctx, after, AT_ONCE);
      if (ids.length === 0) break;
      await transaction(ctx, (inner) => judgeAnew(inner, ids));
      looked += ids.length;
      after = ids.at(-1)!;
    }
    return async (inner) => {
      tell(ctx.libraryId, 'sources', 'duplicates');
      return { looked, groups: (await talliesOf(inner)).duplicates };
    };
  },
});

/** Begins looking through the whole library, behind what else is done. */
export const lookThrough = (ctx: Context): Promise<Job> => beginJob(ctx, 'doubles', null);
