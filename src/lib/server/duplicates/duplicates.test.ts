import fc from 'fast-check';
import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { worksTwice } from '../../../../tests/doubles/works';
import { findGroups, signatureOf } from '../../core/duplicates';
import { sourceRecord, type SourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { newId } from '../db/ids';
import { insertPassage } from '../passages/repository';
import { deleteForGood } from '../bin';
import { binSources } from '../sources';
import { getSource, insertSource, sourceByKey, updateSource } from '../sources/repository';
import { getJob } from '../jobs/repository';
import { stopJob } from '../jobs/runner';
import { openTestLibrary } from '../test-library';
import { groupsInOrder, groupWith, membersOf, twiceAmong } from './groups';
import {
  compareGroup,
  doublesOfSource,
  keepApart,
  lookThrough,
  merge,
  notApart,
  relate,
  relatedTo,
  undoableMerges,
  undoMerge,
  unrelate,
} from './index';

let db: Knex;
let ctx: Context;
beforeEach(async () => ({ db, ctx } = await openTestLibrary()));
afterEach(() => db.destroy());

const record = (fields: Partial<SourceRecord> = {}) =>
  sourceRecord.parse({
    type: 'article-journal',
    title: 'Salt marsh recovery behind breached dams',
    author: [{ family: 'Ferreira', given: 'Ana' }],
    issued: { 'date-parts': [[2021]] },
    'container-title': 'Marsh Letters',
    volume: '3',
    ...fields,
  });
const add = (r: SourceRecord, citekey?: string) =>
  transaction(ctx, (inner) => insertSource(inner, r, { why: 'test', ...(citekey ? { citekey } : {}) }));
const three = async () => [
  await add(record({ page: '7' }), 'a'),
  await add(record({ page: '7-24', DOI: '10.5555/marsh' }), 'b'),
  await add(record({ abstract: 'Ponds.', retexa: { origins: {}, tags: ['marsh'], kept: {} } }), 'c'),
];
const groups = async () => {
  const found = [];
  for (const g of await groupsInOrder(ctx, { limit: 10_000 }))
    found.push({ ids: await membersOf(ctx, g.id), verdict: g.verdict });
  return found;
};
const passage = (sourceId: string, said: { gist: string; ownWords: string; visibility?: 'private' }) =>
  insertPassage(ctx, {
    sourceId,
    copyId: null,
    kind: 'quotation',
    selectors: null,
    exact: 'Sediment is not the limit here.',
    locator: { label: 'page', value: '9' },
    tint: 'claim',
    visibility: 'library',
    anchor: 'found',
    ...said,
  });

const SEED = Number(process.env.SEED ?? 20261126);

describe('groups', () => {
  it(`are the same when records come one by one as when all are looked through (seed ${SEED})`, async () => {
    await fc.assert(
      fc.asyncProperty(fc.nat(100_000), async (seed) => {
        const library = await openTestLibrary();
        const set = worksTwice(25, seed);
        const ids: string[] = [];
        for (const { record: r } of set)
          ids.push((await transaction(library.ctx, (inner) => insertSource(inner, r, { why: 'test' }))).id);
        const whole = findGroups(
          ids,
          set.map((s) => signatureOf(s.record)),
        );
        const kept = [];
        for (const g of await groupsInOrder(library.ctx, { limit: 1_000 }))
          kept.push((await membersOf(library.ctx, g.id)).join());
        expect(kept.sort()).toEqual(whole.map((g) => g.ids.join()).sort());
        await library.db.destroy();
      }),
      { numRuns: 12, seed: SEED },
    );
  });
  it('are what a source is said to be twice by: one that is like one of a group and not of it is not', async () => {
    const [a, b, c] = await three();
    const other = await add(record({ title: 'Tolls of the estuary' }));
    expect(await doublesOfSource(ctx, a!.id)).toHaveLength(2);
    // A pair that no group holds: it is asked about when the group has been decided.
    await db('likeness').insert({
      library_id: ctx.libraryId,
      a_id: a!.id,
      b_id: other.id,
      rank: 1,
      score: 6,
      reasons: '[]',
    });
    expect((await twiceAmong(ctx, [a!.id, b!.id, c!.id, other.id])).has(other.id)).toBe(false);
    expect(await doublesOfSource(ctx, other.id)).toEqual([]);
    expect((await doublesOfSource(ctx, a!.id)).map((d) => d.id).sort()).toEqual([b!.id, c!.id].sort());
  });
  it('hold three captures of one work, and follow edits, the bin and deleting', async () => {
    const [a, b, c] = await three();
    expect(await groups()).toEqual([{ ids: [a!.id, b!.id, c!.id], verdict: 'sure' }]);
    await updateSource(ctx, c!.id, 1, { record: record({ title: 'Tolls and dues of the estuary' }) }, 'x');
    expect(await groups()).toEqual([{ ids: [a!.id, b!.id], verdict: 'sure' }]);
    await updateSource(ctx, c!.id, 2, { record: record() }, 'x');
    await binSources(ctx, [a!.id], true);
    expect((await groups())[0]!.ids).toEqual([b!.id, c!.id]);
    await binSources(ctx, [a!.id], false);
    expect((await groups())[0]!.ids).toHaveLength(3);
    await binSources(ctx, [a!.id], true);
    await deleteForGood(ctx, 'sources', [a!.id]);
    expect((await groups())[0]!.ids).toEqual([b!.id, c!.id]);
    expect(await db('lookup').where({ source_id: a!.id })).toEqual([]);
    expect(await db('lookup_key').whereNotIn('lookup_id', db('lookup').select('id'))).toEqual([]);
  });
  it('leave out what is kept apart, also after edits, until that is taken back', async () => {
    const [a, b, c] = await three();
    await keepApart(ctx, c!.id, [a!.id, b!.id]);
    expect((await groups()).map((g) => g.ids)).toEqual([[a!.id, b!.id]]);
    await updateSource(ctx, c!.id, 1, { record: record({ page: '7-24', DOI: '10.5555/marsh' }) }, 'x');
    expect((await groups()).map((g) => g.ids)).toEqual([[a!.id, b!.id]]);
    await notApart(ctx, c!.id, [a!.id, b!.id]);
    expect((await groups())[0]!.ids).toHaveLength(3);
  });
});

describe('looking through the whole library', () => {
  const ended = async (id: string) => {
    for (;;) {
      const job = await getJob(ctx, id);
      if (job.state === 'done' || job.state === 'failed') return job;
      await new Promise(setImmediate);
    }
  };
  it('finds what judging one by one has lost, and says how much it looked through', async () => {
    const [a, b, c] = await three();
    await keepApart(ctx, a!.id, [c!.id]);
    await db('likeness').delete();
    await db('likeness_group').delete();
    await db('likeness_member').delete();
    const { result } = await ended((await lookThrough(ctx)).id);
    expect(result).toEqual({ looked: 3, groups: 1 });
    expect(await groups()).toHaveLength(1);
    expect((await groups())[0]!.ids).toContain(b!.id);
  });
  it('can be stopped, and says so', async () => {
    for (let i = 0; i < 30; i++) await add(record({ title: `Tolls of the estuary, year ${i}` }));
    const { id } = await lookThrough(ctx);
    await stopJob(ctx, id);
    expect(await ended(id)).toMatchObject({
      state: 'failed',
      error: { message: 'Stopped. What was looked through by then is up to date.' },
    });
  });
});

describe('merging several', () => {
  it('makes one of three, and is undone row by row', async () => {
    const [a, b, c] = await three();
    const state = async () => ({
      sources: await db('source').select('id', 'record', 'citekey', 'merged_into').orderBy('id'),
      aliases: await db('alias').orderBy('alias'),
      groups: await groups(),
      tallies: await db('tally').whereNot({ n: 0 }).orderBy(['what', 'project_id']),
      lookups: await db('lookup').select('source_id', 'keys').orderBy('source_id'),
    });
    const before = await state();
    const id = await merge(ctx, {
      ids: [a!.id, b!.id, c!.id],
      bases: [1, 1, 1],
      picks: { volume: { value: '4' }, page: 0 },
    });
    expect((await getSource(ctx, a!.id)).record).toMatchObject({
      volume: '4',
      page: '7',
      DOI: '10.5555/marsh',
      abstract: 'Ponds.',
    });
    expect(await sourceByKey(ctx, 'b')).toBe(a!.id);
    expect(await sourceByKey(ctx, 'c')).toBe(a!.id);
    expect(await groups()).toEqual([]);
    expect(await undoableMerges(ctx)).toMatchObject([{ id, citekeys: ['b', 'c'], works: 1 }]);
    expect(await undoMerge(ctx, id)).toEqual({ edited: [] });
    expect(await state()).toEqual(before);
    await expect(undoMerge(ctx, id)).rejects.toMatchObject({ status: 409 });
  });
  it('refuses what is none, changed meanwhile, or no value of its field, and changes nothing', async () => {
    const [a, b] = await three();
    const ids = [a!.id, b!.id];
    await expect(merge(ctx, { ids: [a!.id, a!.id], bases: [1, 1] })).rejects.toMatchObject({ status: 422 });
    await expect(merge(ctx, { ids, bases: [1, 2] })).rejects.toMatchObject({ status: 409 });
    await expect(
      merge(ctx, { ids, bases: [1, 1], picks: { author: { value: 'Ana' } } }),
    ).rejects.toMatchObject({
      status: 422,
    });
    await expect(merge(ctx, { ids: [a!.id, newId()], bases: [1, 1] })).rejects.toMatchObject({ status: 404 });
    expect(await db('merge')).toEqual([]);
  });
  it('leaves what was edited since with the survivor, by name, and refuses when that went into another', async () => {
    const [a, b, c] = await three();
    const first = await merge(ctx, { ids: [a!.id, b!.id], bases: [1, 1] });
    const { record: now, revision } = await getSource(ctx, a!.id);
    const edited = { ...now, title: 'Marshes', retexa: { ...now.retexa, tags: ['new'] } };
    await updateSource(ctx, a!.id, revision, { record: edited }, 'x');
    const second = await merge(ctx, { ids: [c!.id, a!.id], bases: [1, revision + 1] });
    await expect(undoMerge(ctx, first)).rejects.toMatchObject({ status: 409 });
    await undoMerge(ctx, second);
    const { edited: said } = await undoMerge(ctx, first);
    expect(said).toEqual(['Ferreira 2021: title']);
    const back = (await getSource(ctx, a!.id)).record;
    expect(back).toMatchObject({ title: 'Marshes', page: '7', retexa: { tags: ['new'] } });
    expect(back.DOI).toBeUndefined();
  });
  it('makes one of passages that mark the same words, with what was said of both, and parts them again', async () => {
    const [a, b] = await three();
    const mine = await passage(a!.id, { gist: 'Not sediment', ownWords: 'Elevation decides.' });
    const theirs = await passage(b!.id, { gist: 'Limit', ownWords: 'See the survey.' });
    const hidden = await passage(b!.id, { gist: 'Mine', ownWords: '', visibility: 'private' });
    const id = await merge(ctx, { ids: [a!.id, b!.id], bases: [1, 1] });
    expect(await db('passage').where({ id: mine.id }).first()).toMatchObject({
      gist: 'Not sediment · Limit',
      own_words: 'Elevation decides.\n\nSee the survey.',
      binned: null,
    });
    expect((await db('passage').where({ id: theirs.id }).first('binned')) as object).not.toEqual({
      binned: null,
    });
    expect(await db('passage').where({ id: hidden.id }).first()).toMatchObject({
      binned: null,
      source_id: a!.id,
    });
    await undoMerge(ctx, id);
    expect(await db('passage').where({ id: mine.id }).first()).toMatchObject({
      gist: 'Not sediment',
      own_words: 'Elevation decides.',
    });
    expect(await db('passage').where({ id: theirs.id }).first()).toMatchObject({
      source_id: b!.id,
      binned: null,
    });
  });
  it('of several groups is one step', async () => {
    const [a, b] = await three();
    const [d, e] = [
      await add(record({ title: 'Tolls', DOI: '10.5555/t' })),
      await add(record({ title: 'Tolls', DOI: '10.5555/t' })),
    ];
    const id = await merge(ctx, { ids: [a!.id, b!.id], bases: [1, 1] }, { ids: [d.id, e.id], bases: [1, 1] });
    expect(await undoableMerges(ctx)).toMatchObject([{ id, works: 2 }]);
    await undoMerge(ctx, id);
    expect((await db('source').whereNotNull('merged_into')) as unknown[]).toEqual([]);
  });
});

describe('works that belong together', () => {
  it('are linked by what the records say, both say so, and a person may say otherwise', async () => {
    const book = (edition: string, year: number) =>
      record({ type: 'book', edition, issued: { 'date-parts': [[year]] }, volume: undefined });
    const [a, b] = [await add(book('1', 2001)), await add(book('2', 2010))];
    expect(await groups()).toEqual([]);
    for (const [one, other] of [
      [a, b],
      [b, a],
    ] as const)
      expect(await relatedTo(ctx, one.id)).toMatchObject([{ id: other.id, kind: 'edition', said: false }]);
    await unrelate(ctx, a.id, [b.id]);
    expect(await relatedTo(ctx, a.id)).toEqual([]);
    await updateSource(ctx, b.id, 1, { record: book('3', 2010) }, 'x');
    expect(await relatedTo(ctx, a.id)).toEqual([]);
    await unrelate(ctx, a.id, [b.id], true);
    expect(await relatedTo(ctx, a.id)).toHaveLength(1);
  });
  it('are no doubles once somebody linked them, until that is undone', async () => {
    const [a, b] = await three();
    await relate(ctx, a!.id, [b!.id], 'reprint');
    expect((await doublesOfSource(ctx, a!.id)).map((d) => d.id)).not.toContain(b!.id);
    expect(await relatedTo(ctx, b!.id)).toMatchObject([{ id: a!.id, kind: 'reprint', said: true }]);
    await unrelate(ctx, a!.id, [b!.id]);
    expect((await groupWith(ctx, a!.id))?.size).toBe(3);
  });
});

it('lays a group out with what differs, what agrees and what hangs on each', async () => {
  const [a, b, c] = await three();
  await passage(b!.id, { gist: 'x', ownWords: '' });
  const laid = await compareGroup(ctx, [c!.id, a!.id, b!.id]);
  expect(laid.sources.map((s) => s.id)).toEqual([a!.id, b!.id, c!.id]);
  expect(laid.sources[1]!.passages).toBe(1);
  expect(laid.proposals).toEqual(
    expect.arrayContaining([
      expect.objectContaining({ field: 'page', from: 1 }),
      expect.objectContaining({ field: 'DOI', from: 1, why: 'the only one' }),
      expect.objectContaining({ field: 'abstract', from: 2, why: 'the only one' }),
    ]),
  );
  expect(laid.same).toContain('title');
});
