import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { insertJob, getJob, updateJob, type Job } from './repository';
import { held, hold } from './holds';
import { dismissJob } from './index';
import {
  answerJob,
  beginJob,
  carriesOut,
  goOn,
  retryJob,
  stopAll,
  stopJob,
  type Doing,
  type Keep,
} from './runner';
import { openTestLibrary } from '../test-library';

let db: Knex;
let ctx: Context;
/** What the work under test does; each test says. */
let run: (job: Job, doing: Doing) => Promise<Keep<unknown>>;
let takenBack: string[];
let takenBackAs: Context['role'][];
let released: string[];
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
  [takenBack, takenBackAs, released] = [[], [], []];
  run = () => Promise.resolve(() => Promise.resolve('result'));
  carriesOut<unknown, unknown, unknown>('capture', {
    atOnce: 2,
    words: { stopped: 'Stopped by hand.', broken: 'Broken.' },
    run: (_ctx, job, doing) => run(job, doing),
    takeBack: ({ role }, id) => {
      takenBackAs.push(role);
      return Promise.resolve(void takenBack.push(id));
    },
    release: (_ctx, { id }) => Promise.resolve(void released.push(id)),
  });
});
afterEach(() => db.destroy());

async function until(state: string, id: string): Promise<Job> {
  for (;;) {
    const job = await getJob(ctx, id);
    if (job.state === state) return job;
    await new Promise((resolve) => setImmediate(resolve));
  }
}
/** Work that goes on until it is stopped. */
const endless = (_job: Job, { signal, step }: Doing) =>
  new Promise<Keep<unknown>>((_, reject) => {
    signal.addEventListener('abort', () => {
      try {
        step('never said');
      } catch (error) {
        reject(error as Error);
      }
    });
  });

describe('a job', () => {
  it('keeps what it found together with the word that it is done, or neither', async () => {
    run = () =>
      Promise.resolve(async (inner) => {
        await hold(inner, job.id, 'kept');
        throw new Refusal(422, 'It does not fit.');
      });
    const job = await beginJob(ctx, 'capture', { text: 'a' });
    expect(await until('failed', job.id)).toMatchObject({
      error: { message: 'It does not fit.' },
      input: { text: 'a' },
    });
    expect(await held(ctx, job.id)).toBeUndefined();
    expect(takenBack).toEqual([job.id]);
    run = () => Promise.resolve(() => Promise.resolve({ kind: 'kept' }));
    await retryJob(ctx, job.id);
    expect(await until('done', job.id)).toMatchObject({ result: { kind: 'kept' }, error: null });
    await expect(retryJob(ctx, job.id)).rejects.toMatchObject({ status: 409 });
  });

  it('says in its own words that something broke', async () => {
    run = () => Promise.reject(new TypeError('x is undefined'));
    const { id } = await beginJob(ctx, 'capture', {});
    expect((await until('failed', id)).error).toEqual({ message: 'Broken.', details: [] });
  });

  it('waits while as many of its kind go on as may, and is stopped there or under way', async () => {
    run = endless;
    const jobs = [];
    for (let i = 0; i < 3; i++) jobs.push(await beginJob(ctx, 'capture', { i }));
    await until('running', jobs[0]!.id);
    await until('running', jobs[1]!.id);
    expect((await getJob(ctx, jobs[2]!.id)).state).toBe('waiting');
    for (const { id } of [jobs[2]!, jobs[0]!, jobs[1]!]) {
      await stopJob(ctx, id);
      expect((await until('failed', id)).error?.message).toBe('Stopped by hand.');
    }
    // What waited was never begun.
    expect(takenBack).not.toContain(jobs[2]!.id);
  });

  it('asks, and is answered once', async () => {
    run = ({ answer }) => Promise.resolve(() => Promise.resolve(answer ?? 'which?'));
    const { id } = await beginJob(ctx, 'capture', {});
    await until('done', id);
    const answers = await Promise.allSettled([answerJob(ctx, id, 'this'), answerJob(ctx, id, 'that')]);
    expect(answers.map((a) => a.status).sort()).toEqual(['fulfilled', 'rejected']);
    expect((await until('done', id)).result).toMatch(/^th/);
  });

  it('is put away when it has ended, with what it held', async () => {
    run = endless;
    const { id } = await beginJob(ctx, 'capture', {});
    await until('running', id);
    await expect(dismissJob(ctx, id)).rejects.toMatchObject({ status: 409 });
    await stopJob(ctx, id);
    await until('failed', id);
    await dismissJob(ctx, id);
    expect((await getJob(ctx, id)).state).toBe('dismissed');
    expect(released).toEqual([id]);
  });

  it('is not for those who only read', async () => {
    const reader: Context = { ...ctx, role: 'reader' };
    await expect(beginJob(reader, 'capture', {})).rejects.toMatchObject({ status: 403 });
  });
});

describe('a server that starts again', () => {
  it('takes back what was cut off and goes on with it once; a second time it says so', async () => {
    const cut = await insertJob(ctx, 'capture', { text: 'cut off' });
    await updateJob(ctx, cut.id, { state: 'running', tries: 1 });
    const twice = await insertJob(ctx, 'capture', { text: 'cut off twice' });
    await updateJob(ctx, twice.id, { state: 'running', tries: 2 });
    expect(await goOn(db)).toBe(2);
    expect(takenBack).toEqual([cut.id, twice.id]);
    expect(await until('done', cut.id)).toMatchObject({ result: 'result', tries: 2 });
    expect(await getJob(ctx, twice.id)).toMatchObject({
      state: 'failed',
      input: { text: 'cut off twice' },
      error: { message: expect.stringContaining('The server stopped in the middle of this') as string },
    });
  });

  it('takes back whatever whoever began it still may, and ends it when they are no member any more', async () => {
    const began = async () => {
      const { id } = await insertJob(ctx, 'capture', {});
      await updateJob(ctx, id, { state: 'running', tries: 1 });
      return id;
    };
    await db('membership').update({ role: 'reader' });
    const byReader = await began();
    await goOn(db);
    await until('done', byReader);
    await db('membership').delete();
    const byNobody = await began();
    await goOn(db);
    expect(await getJob(ctx, byNobody)).toMatchObject({
      state: 'failed',
      error: { message: expect.stringContaining('no member') as string },
    });
    expect(takenBackAs).toEqual(['owner', 'owner']);
  });

  it('goes on with what an orderly end left, however often', async () => {
    run = endless;
    const { id } = await beginJob(ctx, 'capture', {});
    await until('running', id);
    await stopAll();
    expect(await getJob(ctx, id)).toMatchObject({ state: 'waiting', tries: 0, error: null });
    run = () => Promise.resolve(() => Promise.resolve('went on'));
    await goOn(db);
    expect((await until('done', id)).result).toBe('went on');
  });
});
