import type { JudgedPair } from '../../core/duplicates';
import { transaction, type Context } from '../access/context';
import { tell } from '../access/events';
import { beginJob, carriesOut, type Doing } from '../jobs/runner';
import type { Job } from '../jobs/repository';
import { livingRecordsAfter, revisionsNow } from '../sources/repository';
import { talliesOf } from '../sources/tallies';
import { looking } from '../workers/doubles';
import { apartAmong } from './apart';
import { regroup } from './groups';
import { forgetPair, keepPair, pairsAfter, type Pair } from './pairs';
import { forgetJudged, judgedAfter, keepRelation } from './relations';

/** What came of looking through a library. */
export interface PassResult {
  looked: number;
  groups: number;
}

/** How many sources are read at once, and of how many pairs what is kept is put right in one transaction. */
const READ = 500;
const PUT_RIGHT = 100;

/** Sources as they were looked through: a source that has changed since was judged when it did. */
type Revisions = ReadonlyMap<string, number>;

/**
 * Looks through every source of the library again, in a thread of its own: what has become rarer since, as others left, tells
 * more now. What is kept is then put right in short transactions, so that others write between them, and one that is
 * stopped has done what it has done.
 */
carriesOut<null, PassResult>('doubles', {
  atOnce: 1,
  words: {
    stopped: 'Stopped. What was looked through by then is up to date.',
    broken:
      'Something went wrong inside Retexa while looking for duplicates. Nothing was lost; try it again.',
  },
  async run(ctx, _job, doing) {
    const thread = looking();
    const stop = () => void thread.end();
    doing.signal.addEventListener('abort', stop);
    try {
      const { sources: total } = await talliesOf(ctx);
      const revisions = new Map<string, number>();
      for (let after = ''; ;) {
        doing.step('Reading the sources', revisions.size, Math.max(total, revisions.size));
        const rows = await livingRecordsAfter(ctx, after, READ);
        if (rows.length === 0) break;
        await thread.add(rows.map(({ id, record }) => ({ id, record })));
        for (const { id, revision } of rows) revisions.set(id, revision);
        after = rows.at(-1)!.id;
      }
      doing.step('Looking for works that are here twice', 0, revisions.size);
      const { doubles, related } = await thread.found((looked) => {
        if (!doing.signal.aborted)
          doing.step('Looking for works that are here twice', looked, revisions.size);
      });
      await putPairsRight(ctx, doubles, revisions, doing);
      await putRelationsRight(ctx, related, revisions, doing);
      return async (inner) => {
        tell(ctx.libraryId, 'sources', 'duplicates');
        return { looked: revisions.size, groups: (await talliesOf(inner)).duplicates };
      };
    } finally {
      doing.signal.removeEventListener('abort', stop);
      await thread.end();
    }
  },
});

const nameOf = ({ a, b }: { a: string; b: string }) => `${a} ${b}`;

/** Those of some sources that are as they were when they were looked through. */
async function unchanged(
  ctx: Context,
  pairs: readonly { a: string; b: string }[],
  revisions: Revisions,
): Promise<(pair: { a: string; b: string }) => boolean> {
  const now = await revisionsNow(ctx, [...new Set(pairs.flatMap(({ a, b }) => [a, b]))]);
  const same = (id: string) => now.has(id) && now.get(id) === revisions.get(id);
  return ({ a, b }) => same(a) && same(b);
}

function* parts<T>(all: readonly T[]): Generator<[part: T[], done: number]> {
  for (let from = 0; from < all.length; from += PUT_RIGHT)
    yield [all.slice(from, from + PUT_RIGHT), Math.min(all.length, from + PUT_RIGHT)];
}

/** Takes out the pairs that are none any more, keeps those that are new or judged otherwise, and makes their groups anew. */
async function putPairsRight(
  ctx: Context,
  found: readonly JudgedPair[],
  revisions: Revisions,
  doing: Doing,
): Promise<void> {
  const wanted = new Map(found.map((pair) => [nameOf(pair), pair]));
  const kept = new Map<string, number>();
  for (let after: Pair | undefined; ;) {
    const some = await pairsAfter(ctx, after, READ);
    if (some.length === 0) break;
    for (const pair of some) kept.set(nameOf(pair), pair.score);
    after = some.at(-1)!;
  }
  const pairOf = (name: string) => {
    const [a, b] = name.split(' ') as [string, string];
    return { a, b };
  };
  const gone = [...kept.keys()].filter((name) => !wanted.has(name)).map(pairOf);
  const changed = found.filter((pair) => kept.get(nameOf(pair)) !== pair.score);
  const all: ({ a: string; b: string } | JudgedPair)[] = [...gone, ...changed];
  for (const [part, done] of parts(all)) {
    doing.step('Putting right what is kept', done, all.length);
    await transaction(ctx, async (inner) => {
      const still = await unchanged(inner, part, revisions);
      const apart = await apartAmong(
        inner,
        part.map(({ a }) => a),
      );
      const touched = new Set<string>();
      for (const pair of part) {
        if (!still(pair) || apart.has(nameOf(pair))) continue;
        if ('verdict' in pair) await keepPair(inner, pair.a, pair.b, pair);
        else await forgetPair(inner, pair.a, pair.b);
        touched.add(pair.a).add(pair.b);
      }
      if (touched.size > 0) await regroup(inner, [...touched]);
    });
  }
}

/** The same of works that belong together, but for what a person said of them. */
async function putRelationsRight(
  ctx: Context,
  found: readonly JudgedPair[],
  revisions: Revisions,
  doing: Doing,
): Promise<void> {
  const wanted = new Map(found.map((pair) => [nameOf(pair), pair.relation!]));
  const kept = new Map<string, string>();
  for (let after: { a: string; b: string } | undefined; ;) {
    const some = await judgedAfter(ctx, after, READ);
    if (some.length === 0) break;
    for (const pair of some) kept.set(nameOf(pair), pair.kind);
    after = some.at(-1)!;
  }
  const names = [...new Set([...kept.keys(), ...wanted.keys()])].filter(
    (name) => kept.get(name) !== wanted.get(name),
  );
  const all = names.map((name) => ({
    a: name.slice(0, name.indexOf(' ')),
    b: name.slice(name.indexOf(' ') + 1),
  }));
  for (const [part, done] of parts(all)) {
    doing.step('Putting right what belongs together', done, all.length);
    await transaction(ctx, async (inner) => {
      const still = await unchanged(inner, part, revisions);
      for (const pair of part.filter(still)) {
        await forgetJudged(inner, pair.a, pair.b);
        const kind = wanted.get(nameOf(pair));
        if (kind) await keepRelation(inner, pair.a, pair.b, kind);
      }
    });
  }
}

/** Begins looking through the whole library, behind what else is done. */
export const lookThrough = (ctx: Context): Promise<Job> => beginJob(ctx, 'doubles', null);
