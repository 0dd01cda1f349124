import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { getJob, updateJob } from '../jobs/repository';
import { goOn, stopJob } from '../jobs/runner';
import { noteSteps } from '../jobs/steps';
import { keepNote, noteWords } from '../notes';
import { editSource, getSource, listIds, restoreRevision } from '../sources';
import { editEach } from '../sources/editing';
import { insertSource } from '../sources/repository';
import { openTestLibrary } from '../test-library';
import { binMany, editMany, MOST_AT_ONCE, takeManyBack, undoMany, type Made } from './index';

const MANY = MOST_AT_ONCE + 61;

let db: Knex;
let ctx: Context;
let ids: string[];
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
  ids = await transaction(ctx, async (inner) => {
    const made: string[] = [];
    for (let i = 0; i < MANY; i++)
      made.push(
        (await insertSource(inner, sourceRecord.parse({ type: 'book', title: `Mill ${i}` }), { why: 'test' }))
          .id,
      );
    return made;
  });
});
afterEach(() => db.destroy());

const jobOf = (made: Made): string => {
  if (!('job' in made)) throw new Error('it was done at once');
  return made.job;
};
/** The job once it has ended. */
async function ended(made: Made) {
  for (;;) {
    const job = await getJob(ctx, jobOf(made));
    if (job.state !== 'waiting' && job.state !== 'running') return job;
    await new Promise((go) => setTimeout(go, 5));
  }
}
const tagged = async (tag: string) =>
  ((await db('source_tag').where({ tag }).count({ n: '*' })) as { n: number }[])[0]!.n;

describe('a change of many', () => {
  it('is made at once of few, and as a job of more, others writing between', async () => {
    expect(await editMany(ctx, ids.slice(0, 3), { tag: 'few' })).toMatchObject({
      revisions: [expect.any(String), expect.any(String), expect.any(String)],
    });
    const made = await editMany(ctx, ids, { change: { act: 'set', field: 'publisher', value: 'Tidal' } });
    // It is kept while the job goes on, which is not through yet.
    await keepNote(ctx, noteWords.parse({ body: 'meanwhile', projectId: null, sourceId: null }));
    expect((await getJob(ctx, jobOf(made))).state).not.toBe('done');
    expect(await ended(made)).toMatchObject({ state: 'done', result: { changed: MANY } });
    expect((await getSource(ctx, ids.at(-1)!)).record.publisher).toBe('Tidal');
  });

  it('is taken back as a whole, and done again', async () => {
    const made = await editMany(ctx, ids, { tag: 'many' });
    await ended(made);
    expect(await tagged('many')).toBe(MANY);
    const back = await takeManyBack(ctx, await getJob(ctx, jobOf(made)));
    expect(await ended(back)).toMatchObject({ state: 'done', result: { changed: MANY } });
    expect(await tagged('many')).toBe(0);
    await ended(await takeManyBack(ctx, await getJob(ctx, jobOf(back))));
    expect(await tagged('many')).toBe(MANY);
  });

  it('leaves all as it was where one cannot be changed, and names it', async () => {
    // The last holds what no edit takes: a record of an earlier release.
    await db('source')
      .where({ id: ids.at(-1)! })
      .update({
        record: JSON.stringify({ type: 'book', title: 'Old', issued: { nonsense: true }, retexa: {} }),
      });
    const job = await ended(
      await editMany(ctx, ids, { change: { act: 'set', field: 'language', value: 'en' } }),
    );
    expect(job).toMatchObject({
      state: 'failed',
      error: { details: expect.arrayContaining([expect.stringContaining('Old: ')]) },
    });
    expect((await getSource(ctx, ids[0]!)).record.language).toBeUndefined();
  });

  it('that is stopped leaves all as it was; what somebody changed since stays', async () => {
    const made = await binMany(ctx, ids, true);
    const job = jobOf(made);
    // A question waits its turn behind a part of the job.
    let binned: string[] = [];
    while (binned.length === 0) binned = (await db('source').whereNotNull('binned').pluck('id')) as string[];
    const [first] = binned;
    const { revision } = await getSource(ctx, first!);
    await editSource(ctx, first!, revision, { fields: { note: 'mine' } });
    await stopJob(ctx, job);
    expect(await ended(made)).toMatchObject({
      state: 'failed',
      error: { message: expect.stringContaining('stopped') },
    });
    expect(await listIds(ctx, {})).toHaveLength(MANY - 1);
    expect((await getSource(ctx, first!)).record.note).toBe('mine');
  });

  it('goes on when a server ended in the middle of it', async () => {
    const made = await editMany(ctx, ids, { tag: 'on' });
    await ended(made);
    const id = jobOf(made);
    await ended(await takeManyBack(ctx, await getJob(ctx, id)));
    // As it stands when the server ends: some are changed, the job runs, and what it is of is held.
    await db('import_step').where({ job_id: id }).delete();
    await db('hold').insert({ job_id: id, library_id: ctx.libraryId, content: JSON.stringify(ids) });
    await transaction(ctx, async (inner) => {
      const some = await editEach(inner, ids.slice(0, 40), { tag: 'on' });
      await noteSteps(
        inner,
        id,
        some.map((one) => ({ ...one, merged: true })),
      );
    });
    await updateJob(ctx, id, { state: 'running', result: null });
    expect(await goOn(db)).toBe(1);
    expect(await ended(made)).toMatchObject({ state: 'done', result: { changed: MANY } });
    expect(await tagged('on')).toBe(MANY);
  });

  it('is taken back by its revisions too, and not where one of them is not the latest', async () => {
    const at = await editMany(ctx, ids.slice(0, MOST_AT_ONCE), { tag: 'half' });
    const other = await editMany(ctx, ids.slice(MOST_AT_ONCE), { tag: 'half' });
    const revisions = [at, other].flatMap((made) => ('revisions' in made ? made.revisions : []));
    await restoreRevision(ctx, ids[7]!, 1);
    expect(await ended(await undoMany(ctx, revisions))).toMatchObject({ state: 'failed' });
    expect(await tagged('half')).toBe(MANY - 1);
  });
});
