import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord, type SourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { fileSources, insertProject } from '../projects/repository';
import { binSources, editSource, getSource, listIds, undo } from '../sources';
import { insertSource, type SourceFilter } from '../sources/repository';
import { keepPassage } from '../passages';
import { openTestLibrary } from '../test-library';
import {
  askIn,
  decide,
  findingsOf,
  openedProof,
  proofAroundOf,
  proofOf,
  shownFixed,
  standingIn,
} from './index';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const look = { style: 'apa', locale: 'en-US' };
const whole: Partial<SourceRecord> = {
  type: 'book',
  author: [{ family: 'Ng', given: 'Tsz Ho' }],
  issued: { 'date-parts': [[1990]] },
  publisher: 'Foreshore Press',
};
const add = async (title: string, fields: Partial<SourceRecord> = {}) =>
  (
    await transaction(ctx, (inner) =>
      insertSource(inner, sourceRecord.parse({ ...whole, title, ...fields }), { why: 'test', checked: true }),
    )
  ).id;
const found = async (projectId?: string) =>
  (await proofOf(ctx, projectId ? { projectId } : {})).map(({ check, n, fixable }) => [check, n, fixable]);
const titleOf = async (id: string) => (await getSource(ctx, id)).record.title;

describe('the proof of a library', () => {
  it('counts what is found by check, in living sources, and of a project', async () => {
    const one = await add('TIDE MILLS AND LEASES');
    const two = await add('TIDE MILLS AND PONDS', { edition: '1' });
    await add('Sluices');
    expect(await found()).toEqual([
      ['title-capitals', 2, 2],
      ['edition-first', 1, 1],
    ]);
    const project = await insertProject(ctx, { name: 'P', ...look });
    await fileSources(ctx, project.id, [one]);
    expect(await found(project.id)).toEqual([['title-capitals', 1, 1]]);
    // Of what a query asks for, and of sources by their ids, by themselves and beside them.
    const checks = async (filter: SourceFilter) =>
      (await proofOf(ctx, filter)).map((g) => `${g.check} ${g.n}`);
    expect(await checks({ text: 'ponds' })).toEqual(['title-capitals 1', 'edition-first 1']);
    expect(await checks({ ids: [one] })).toEqual(['title-capitals 1']);
    expect(await checks({ ids: [one], text: 'ponds' })).toEqual([]);
    expect((await openedProof(ctx, 'title-capitals', look, { ids: [two] }, 60)).ids).toEqual([two]);
    expect(await proofAroundOf(ctx, look, { ids: [one] })).toEqual(
      (await proofAroundOf(ctx, look, { projectId: project.id })).map((g) => ({ ...g, aside: false })),
    );
    await binSources(ctx, [two], true);
    expect(await found()).toEqual([['title-capitals', 1, 1]]);
    await binSources(ctx, [two], false);
    expect((await found()).length).toBe(2);
  });

  it('mends one check in all its sources as one step, which is undone as one', async () => {
    const ids = [await add('TIDE MILLS AND LEASES'), await add('TIDE MILLS AND PONDS', { edition: '1' })];
    const opened = await openedProof(ctx, 'title-capitals', look, {}, 1);
    expect(opened.ids).toEqual(ids);
    expect(opened.sources).toMatchObject([
      { id: ids[0], value: 'TIDE MILLS AND LEASES', fixed: 'Tide mills and leases' },
    ]);
    const shown = await shownFixed(ctx, 'title-capitals', ids, look);
    expect(shown.map(({ before, after }) => [before.text, after.text])[0]).toEqual([
      'Ng, T. H. (1990). TIDE MILLS AND LEASES. Foreshore Press.',
      'Ng, T. H. (1990). Tide mills and leases. Foreshore Press.',
    ]);
    const gone = await add('Sluices');
    const { revisions, left } = await decide(
      ctx,
      { check: 'title-capitals', ids: [...ids, gone], act: 'mend' },
      look,
    );
    expect([revisions.length, left]).toEqual([2, 1]);
    expect(await titleOf(ids[1]!)).toBe('Tide mills and ponds');
    expect(await found()).toEqual([['edition-first', 1, 1]]);
    await undo(ctx, revisions);
    expect(await titleOf(ids[0]!)).toBe('TIDE MILLS AND LEASES');
    expect(await found()).toContainEqual(['title-capitals', 2, 2]);
  });

  it('lets stand what is right as it is, until the value changes or it is asked again', async () => {
    const id = await add('TIDE MILLS AND LEASES');
    await decide(ctx, { check: 'title-capitals', ids: [id], act: 'let stand' }, look);
    expect(await found()).toEqual([]);
    const { record, revision } = await getSource(ctx, id);
    expect(standingIn(record).map((f) => f.check)).toEqual(['title-capitals']);
    await editSource(ctx, id, revision, { fields: { title: 'TIDE MILLS AND PONDS' } });
    expect(await found()).toEqual([['title-capitals', 1, 1]]);
    await decide(ctx, { check: 'title-capitals', ids: [id], act: 'let stand' }, look);
    const { revisions } = await decide(ctx, { check: 'title-capitals', ids: [id], act: 'ask again' }, look);
    expect(revisions).toHaveLength(1);
    expect(await found()).toEqual([['title-capitals', 1, 1]]);
  });

  it('finds what the style asks, and anew when a record changes', async () => {
    const article = {
      type: 'article-journal' as const,
      'container-title': 'Marsh Letters',
      volume: '3',
      page: '7-24',
    };
    const id = await add('Sluices of the Eastern Shore and Their Keepers', article);
    const around = async () => (await proofAroundOf(ctx, look, {})).map(({ check, n }) => [check, n]);
    expect(await around()).toEqual([
      ['issue-asked', 1],
      ['title-case', 1],
    ]);
    const opened = await openedProof(ctx, 'title-case', look, {}, 60);
    expect(opened.sources[0]!.fixed).toBe('Sluices of the eastern shore and their keepers');
    await decide(ctx, { check: 'title-case', ids: opened.ids, act: 'mend' }, look);
    expect(await around()).toEqual([['issue-asked', 1]]);
    await decide(ctx, { check: 'issue-asked', ids: [id], act: 'let stand' }, look);
    expect(await around()).toEqual([]);
  });

  it('finds quotations without a place, and names spelled otherwise elsewhere', async () => {
    const id = await add('Sluices', { author: [{ family: 'Ferreira', given: 'A.' }] });
    await add('Ponds', { author: [{ family: 'Ferreira', given: 'Ana' }] });
    await keepPassage(ctx, {
      kind: 'quotation', tint: 'claim', gist: '', ownWords: '', locator: null, visibility: 'library', copyId: null, sourceId: id, exact: 'The pond filled.', selectors: null,
    }); // prettier-ignore
    const source = await getSource(ctx, id);
    expect((await findingsOf(ctx, source, look)).map((f) => f.message)).toEqual([
      '“Ferreira, A.” is “Ferreira, Ana” elsewhere',
      'A quotation without its place',
    ]);
    expect((await proofAroundOf(ctx, look, {})).map((g) => g.check)).toEqual(['place-unsaid']);
  });

  it('does not ask in a project what the project does not want asked', async () => {
    await expect(askIn(ctx, undefined, 'title-capitals', true)).rejects.toThrow('Choose a project');
    const project = await insertProject(ctx, { name: 'P', ...look });
    const id = await add('TIDE MILLS AND LEASES');
    await fileSources(ctx, project.id, [id]);
    await askIn(ctx, project.id, 'title-capitals', true);
    expect((await proofOf(ctx, { projectId: project.id })).map((g) => g.aside)).toEqual([true]);
    expect((await proofOf(ctx, {})).map((g) => g.aside)).toEqual([false]);
    await askIn(ctx, project.id, 'title-capitals', false);
    expect((await proofOf(ctx, { projectId: project.id })).map((g) => g.aside)).toEqual([false]);
  });

  it('says nothing of another library', async () => {
    await add('TIDE MILLS AND LEASES');
    await db('person').insert({ id: 'q', name: 'Q', created: 'x' });
    await db('library').insert({ id: 'other', name: 'Other', owner_id: 'q', created: 'x' });
    const other: Context = { ...ctx, libraryId: 'other', personId: 'q' };
    expect(await proofOf(other, {})).toEqual([]);
    expect(await proofAroundOf(other, look, {})).toEqual([]);
    const ids = await listIds(ctx, {});
    expect(await decide(other, { check: 'title-capitals', ids, act: 'mend' }, look)).toEqual({
      revisions: [],
      left: 1,
    });
  });
});
