import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { formOfName } from '../../core/duplicates';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { getJob, insertJob, updateJob } from '../jobs/repository';
import { goOn, stopJob } from '../jobs/runner';
import { noteSteps } from '../jobs/steps';
import { keepNote, noteWords } from '../notes';
import { keepPassage } from '../passages';
import { getPassage } from '../passages/repository';
import { citekeyPattern, editSource, editSources, getSource, listIds, restoreRevision } from '../sources';
import { editEach } from '../sources/editing';
import { insertSource } from '../sources/repository';
import { atOnce, openTestLibrary, serialised } from '../test-library';
import {
  binMany,
  changeTag,
  citekeysOfMany,
  editMany,
  MOST_AT_ONCE,
  renameEverywhere,
  respellMany,
  takeJobBack,
  undoMany,
  type Made,
} from './index';

const MANY = MOST_AT_ONCE + 61;
const PELL = { family: 'Pell', given: 'M.' };

let db: Knex;
let ctx: Context;
let ids: string[];
/** The library every test begins with: it is filled once. */
let filled: Buffer | undefined;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary(filled));
  if (filled) return;
  ids = await transaction(ctx, async (inner) => {
    const made: string[] = [];
    for (let i = 0; i < MANY; i++) {
      const record = sourceRecord.parse({ type: 'book', title: `Mill ${i}`, author: [PELL] });
      made.push((await insertSource(inner, record, { why: 'test' })).id);
    }
    return made;
  });
  filled = await serialised(db);
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
    const back = await takeJobBack(ctx, await getJob(ctx, jobOf(made)));
    expect(await ended(back)).toMatchObject({ state: 'done', result: { changed: MANY } });
    expect(await tagged('many')).toBe(0);
    await ended(await takeJobBack(ctx, await getJob(ctx, jobOf(back))));
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
    await ended(await takeJobBack(ctx, await getJob(ctx, id)));
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

describe('what stands in many sources', () => {
  const named = (name: string) => listIds(ctx, { text: `person:"${name}"` });
  const asTheyAre = () =>
    Promise.all(ids.map(async (id) => ({ id, revision: (await getSource(ctx, id)).revision })));
  const undone = async (made: Made) => ended(await takeJobBack(ctx, await getJob(ctx, jobOf(made))));

  it('is called otherwise by a job, and as before when that is taken back', async () => {
    const said = { kind: 'person', name: 'Pell, M.', to: 'Pell, Margaret' } as const;
    const made = await renameEverywhere(ctx, said);
    expect(await ended(made)).toMatchObject({ state: 'done', result: { changed: MANY } });
    expect(await named('Pell, Margaret')).toHaveLength(MANY);
    expect(await undone(made)).toMatchObject({ state: 'done', result: { changed: MANY } });
    expect(await named('Pell, M.')).toHaveLength(MANY);
    await expect(renameEverywhere(ctx, { ...said, name: 'Nobody' })).rejects.toMatchObject({ status: 404 });
  });

  it('is spelled alike by a job, of which nothing is kept where one was changed meanwhile', async () => {
    const sources = await asTheyAre();
    const forms = [formOfName(PELL)];
    const one = { act: 'one', kind: 'person', key: 'person pell', forms } as const;
    const said = { ...one, forms, to: { typed: 'Pell, Margaret' } };
    const stale = sources.map((source, i) => (i === MANY - 1 ? { ...source, revision: 7 } : source));
    expect(await ended(await respellMany(ctx, { ...said, sources: stale }))).toMatchObject({
      state: 'failed',
    });
    expect(await named('Pell, Margaret')).toHaveLength(0);
    const made = await respellMany(ctx, { ...said, sources: await asTheyAre() });
    expect(await ended(made)).toMatchObject({ state: 'done', result: { changed: MANY } });
    expect(await named('Pell, Margaret')).toHaveLength(MANY);
  });

  it('is a tag that passages have too', async () => {
    await ended(await editMany(ctx, ids, { tag: 'quay' }));
    const passage = await keepPassage(ctx, {
      kind: 'response', tint: 'claim', gist: 'x', ownWords: '', locator: null, visibility: 'library', copyId: null, sourceId: ids[0]!, exact: '', selectors: null, tags: ['quay', 'law'],
    }); // prettier-ignore
    const made = await changeTag(ctx, { act: 'rename', tag: 'quay', to: 'law' });
    expect(made).toMatchObject({ sources: MANY, passages: 1 });
    expect(await ended(made)).toMatchObject({ state: 'done', result: { changed: MANY + 1 } });
    expect([await tagged('quay'), await tagged('law')]).toEqual([0, MANY]);
    expect((await getPassage(ctx, passage.id)).tags).toEqual(['law']);
    await undone(made);
    expect([await tagged('quay'), await tagged('law')]).toEqual([MANY, 0]);
    expect((await getPassage(ctx, passage.id)).tags).toEqual(['quay', 'law']);
  });

  it('are citekeys, which lead where they led', async () => {
    const before = (await getSource(ctx, ids[3]!)).citekey;
    const made = await citekeysOfMany(ctx, { parts: ['words', 'author'], between: '-' }, ids);
    await ended(made);
    const after = (await getSource(ctx, ids[3]!)).citekey;
    expect(after).not.toBe(before);
    await undone(made);
    expect((await getSource(ctx, ids[3]!)).citekey).toBe(before);
    // Where one is not here nothing is changed, how keys are made neither.
    const pattern = { parts: ['year' as const], between: '' as const };
    await expect(citekeysOfMany(ctx, pattern, [ids[0]!, 'nowhere'])).rejects.toMatchObject({ status: 404 });
    expect(await citekeyPattern(ctx)).not.toEqual(pattern);
    // Without sources only those that come are called so.
    expect(atOnce(await citekeysOfMany(ctx, { parts: ['author'], between: '' }))).toEqual([]);
  });
});

describe('an import that is taken back', () => {
  const entry = (id: string, i: number) => ({ id, label: `Mill ${i}`, line: i + 1, notes: [] });
  async function imported(added: string[], merged: { id: string; revision: string }[]) {
    const { id } = await insertJob(ctx, 'import', {
      fileName: 'mills.bib',
      format: 'bibtex',
      toIntake: false,
    });
    const result = {
      kind: 'done', fileName: 'mills.bib', format: 'bibtex', skipped: [], leftOut: 0, doubles: [],
      added: added.map(entry),
      merged: merged.map(({ id: of, revision }, i) => ({ ...entry(of, 900 + i), revision })),
    }; // prettier-ignore
    await updateJob(ctx, id, { state: 'done', result });
    return getJob(ctx, id);
  }
  async function merged() {
    const [stays, goes] = [ids[0]!, ids[1]!];
    const change = { act: 'set', field: 'note', value: 'from the file' } as const;
    const { revisions } = await editSources(ctx, [stays, goes], { change });
    await editSource(ctx, stays, (await getSource(ctx, stays)).revision, { fields: { note: 'mine' } });
    return [stays, goes].map((id, i) => ({ id, revision: revisions[i]! }));
  }
  const noted = async () =>
    Promise.all(ids.slice(0, 2).map(async (id) => (await getSource(ctx, id)).record.note));

  it('is that at once of few, what was changed since staying as it is', async () => {
    const job = await imported(ids.slice(2, 5), await merged());
    const made = await takeJobBack(ctx, job);
    expect(made).toMatchObject({ left: 1, stays: ['Mill 900'] });
    expect(await noted()).toEqual(['mine', undefined]);
    expect(await listIds(ctx, {})).toHaveLength(MANY - 3);
    await undoMany(ctx, atOnce(made));
    expect(await listIds(ctx, {})).toHaveLength(MANY);
    expect(await noted()).toEqual(['mine', 'from the file']);
  });

  it('is that by a job of more, which can be taken back in turn', async () => {
    const made = await takeJobBack(ctx, await imported(ids.slice(2), await merged()));
    // Somebody saves while it goes on.
    await keepNote(ctx, noteWords.parse({ body: 'meanwhile', projectId: null, sourceId: null }));
    expect((await getJob(ctx, jobOf(made))).state).not.toBe('done');
    expect(await ended(made)).toMatchObject({
      state: 'done',
      result: { changed: MANY - 1, stays: ['Mill 900'] },
    });
    expect(await listIds(ctx, {})).toHaveLength(2);
    expect(await noted()).toEqual(['mine', undefined]);
    await ended(await takeJobBack(ctx, await getJob(ctx, jobOf(made))));
    expect(await listIds(ctx, {})).toHaveLength(MANY);
    expect(await noted()).toEqual(['mine', 'from the file']);
  });

  it('is none where nothing was kept', async () => {
    const { id } = await insertJob(ctx, 'import', { fileName: 'a.bib', format: 'bibtex', toIntake: false });
    await expect(takeJobBack(ctx, await getJob(ctx, id))).rejects.toMatchObject({ status: 409 });
  });
});
