/** What stands in the sections of a project: sources, passages and words of one’s own in one order. */
import type { Knex } from 'knex';
import { afterEach, beforeEach, expect, it } from 'vitest';
import type { ItemChange } from '../../core/outline';
import { transaction, type Context } from '../access/context';
import { openBefore, openTestLibrary } from '../test-library';
import { migrationSource } from '../db/migrations';
import { keepPassage } from '../passages';
import { insertSource } from '../sources/repository';
import {
  addProject,
  changeOutline,
  changePlaced,
  changeSection,
  itemsOfOutline,
  listSections,
  makeSection,
  type OutlineItem,
} from './index';

let db: Knex;
let ctx: Context;
let colleague: Context;
let projectId: string;
let [mill, marsh, a, b]: string[] = [];
const look = { style: 'apa', locale: 'en-US' };

beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
  await db('person').insert({ id: 'colleague', name: 'A colleague', created: 'x' });
  colleague = { ...ctx, personId: 'colleague', role: 'editor' };
  projectId = (await addProject(ctx, { name: 'Thesis', ...look })).id;
  [mill, marsh] = [await source('Mills'), await source('Marshes')];
  [a, b] = [(await makeSection(ctx, projectId, 'A')).id, (await makeSection(ctx, projectId, 'B')).id];
});
afterEach(() => db.destroy());

const source = (title: string) =>
  transaction(ctx, async (inner) => {
    const record = { type: 'book' as const, title, retexa: { origins: {}, tags: [], kept: {} } };
    return (await insertSource(inner, record, { why: 'test' })).id;
  });
const passage = (who: Context, exact: string, visibility: 'library' | 'private' = 'library') =>
  keepPassage(who, {
    sourceId: mill!, copyId: null, kind: 'quotation', tint: 'claim', exact, gist: '', ownWords: '', locator: { label: 'page', value: '7' },
    tags: [], visibility, selectors: null, 
  } as unknown as Parameters<typeof keepPassage>[1]); // prettier-ignore
const doing = (...changes: ItemChange[]) => changeOutline(ctx, projectId, { changes });
const put = (sectionId: string, ...items: { ref?: string; kind: OutlineItem['kind']; words?: string }[]) =>
  doing({ act: 'put', items: items.map((i) => ({ ref: 'new', ...i })), sectionId, before: null });
const read = async (who = ctx) =>
  (await itemsOfOutline(who, projectId)).map(
    (i) => `${i.sectionId === a ? 'A' : 'B'} ${i.words ?? i.passage?.exact ?? i.source!.title}`,
  );
const sentence = (words: string) => ({ kind: 'sentence' as const, words });

it('holds sources, passages and own words in one order, and every change is taken back and done again', async () => {
  const { id: quote } = await passage(ctx, 'The gates stood open.');
  const first = await put(a!, { ref: mill!, kind: 'source' }, { ref: quote, kind: 'passage' }, sentence('Mills ground.'));
  expect(await read()).toEqual(['A Mills', 'A The gates stood open.', 'A Mills ground.']);
  const claim = first.made[0]!;
  const moved = await doing({ act: 'move', items: [{ sectionId: a!, ref: claim }], sectionId: a!, before: mill! });
  expect((await read())[0]).toBe('A Mills ground.');
  const again = await changeOutline(ctx, projectId, moved.back);
  expect((await read())[2]).toBe('A Mills ground.');
  await changeOutline(ctx, projectId, again.back);
  expect((await read())[0]).toBe('A Mills ground.');
  // Sources put into an outline are filed in its project, and taken back they are not.
  const filed = () => db('filing').where({ project_id: projectId }) as unknown as Promise<unknown[]>;
  expect(await filed()).toHaveLength(1);
  await changeOutline(ctx, projectId, moved.back);
  await changeOutline(ctx, projectId, first.back);
  expect([await read(), await filed()]).toEqual([[], []]);
}); // prettier-ignore

it('lets nobody write over what somebody wrote meanwhile', async () => {
  const { made } = await put(a!, sentence('Mills ground.'));
  const item = { sectionId: a!, ref: made[0]! };
  const write = (words: string, was: string) => doing({ act: 'write', item, kind: 'sentence', words, was });
  await write('Mills ground with the tide.', 'Mills ground.');
  await expect(write('Mills stood still.', 'Mills ground.')).rejects.toMatchObject({ status: 409 });
  expect(await read()).toEqual(['A Mills ground with the tide.']);
});

it('is all or nothing, and takes nothing from elsewhere', async () => {
  await expect(
    doing(
      { act: 'put', items: [{ ref: mill!, kind: 'source' }], sectionId: a!, before: null },
      { act: 'take out', items: [{ sectionId: b!, ref: 'gone' }] },
    ),
  ).rejects.toMatchObject({ status: 409 });
  expect(await read()).toEqual([]);
  const other = await addProject(ctx, { name: 'Other', ...look });
  const theirs = (await makeSection(ctx, other.id, 'X')).id;
  await expect(put(theirs, { ref: mill!, kind: 'source' })).rejects.toMatchObject({ status: 404 });
  await expect(put(a!, { ref: 'nowhere', kind: 'source' })).rejects.toMatchObject({ status: 404 });
  await expect(put(a!, { ref: 'nowhere', kind: 'passage' })).rejects.toMatchObject({ status: 404 });
  const { made } = await changeOutline(ctx, other.id, {
    changes: [{ act: 'put', items: [{ ref: 'x', ...sentence('Theirs.') }], sectionId: theirs, before: null }],
  });
  await expect(
    doing({ act: 'restore', put: [{ sectionId: a!, ref: made[0]!, ...sentence('Mine.'), after: null }], out: [] }),
  ).rejects.toMatchObject({ status: 404 }); // prettier-ignore
});

it('shows nobody what a colleague keeps private, and puts nothing out of its place for it', async () => {
  const { id: secret } = await passage(colleague, 'Only mine.', 'private');
  await expect(put(a!, { ref: secret, kind: 'passage' })).rejects.toMatchObject({ status: 404 });
  await changeOutline(colleague, projectId, {
    changes: [{ act: 'put', items: [{ ref: secret, kind: 'passage' }], sectionId: a!, before: null }],
  });
  await put(a!, { ref: mill!, kind: 'source' });
  expect(await read()).toEqual(['A Mills']);
  expect(await read(colleague)).toEqual(['A Only mine.', 'A Mills']);
});

it('leaves own words where they are when sources are put in another order, and with their section in the bin', async () => {
  await put(a!, { ref: mill!, kind: 'source' }, sentence('Between.'), { ref: marsh!, kind: 'source' });
  await changePlaced(ctx, a!, { act: 'order', ids: [marsh!], before: mill! });
  expect(await read()).toEqual(['A Marshes', 'A Between.', 'A Mills']);
  const { back } = await changeSection(ctx, a!, { act: 'bin' });
  expect(await read()).toEqual([]);
  await changeSection(ctx, a!, back);
  expect(await read()).toEqual(['A Marshes', 'A Between.', 'A Mills']);
});

it('comes from sections as they were before, passages behind the sources they stood with', async () => {
  const earlier = await openBefore('0025-outline');
  const rows = [
    ['s', 1, 'one', null],
    ['s', 2, 'two', null],
    ['s', 2, null, 'passage'],
    ['t', 4, null, 'passage'],
  ] as const;
  for (const [section_id, position, source_id, passage_id] of rows)
    await earlier('placement').insert({ section_id, position, source_id, passage_id });
  await earlier.migrate.latest({ migrationSource });
  expect(await earlier('placement').orderBy(['section_id', 'position']).select('section_id', 'position', 'source_id')).toEqual([
    { section_id: 's', position: 1, source_id: 'one' },
    { section_id: 's', position: 2, source_id: 'two' },
    { section_id: 's', position: 3, source_id: null },
    { section_id: 't', position: 1, source_id: null },
  ]); // prettier-ignore
  await earlier.destroy();
});

const headings = async () => (await listSections(ctx)).map((s) => '.'.repeat(s.depth) + s.name);
const inAll = async () => {
  const names = new Map((await listSections(ctx)).map((s) => [s.id, s.name]));
  return (await itemsOfOutline(ctx, projectId))
    .map((i) => `${names.get(i.sectionId)} ${i.words ?? i.source!.title}`)
    .sort();
};

it('is cut in two from an item on, with the sections under it, and put together again', async () => {
  await put(a!, { ref: mill!, kind: 'source' }, sentence('Here.'), sentence('There.'));
  await makeSection(ctx, projectId, 'Under A', a);
  const at = (await itemsOfOutline(ctx, projectId)).find((i) => i.words === 'Here.')!.ref;
  const { back } = await changeSection(ctx, a!, { act: 'split', at, name: 'Second' });
  expect(await headings()).toEqual(['A', 'Second', '.Under A', 'B']);
  expect(await inAll()).toEqual(['A Mills', 'Second Here.', 'Second There.']);
  const again = await changeSection(ctx, a!, back);
  expect(await headings()).toEqual(['A', '.Under A', 'B']);
  expect(await inAll()).toEqual(['A Here.', 'A Mills', 'A There.']);
  await changeSection(ctx, a!, again.back);
  expect(await headings()).toEqual(['A', 'Second', '.Under A', 'B']);
});

it('takes in another section, and gives it back with what it had, also what both had', async () => {
  await put(a!, { ref: mill!, kind: 'source' }, { ref: marsh!, kind: 'source' });
  await put(b!, sentence('Of B.'), { ref: mill!, kind: 'source' });
  const under = (await makeSection(ctx, projectId, 'Under B', b)).id;
  const { back } = await changeSection(ctx, a!, { act: 'take in', section: b! });
  const foreign = {
    act: 'put' as const,
    items: [{ ref: 'nowhere', kind: 'source' as const }],
    sectionId: a!,
    before: null,
  };
  const giving = { ...back, changes: [foreign] } as typeof back;
  await expect(changeSection(ctx, a!, giving)).rejects.toMatchObject({ status: 404 });
  expect(await headings()).toEqual(['A', '.Under B']);
  expect(await inAll()).toEqual(['A Marshes', 'A Mills', 'A Of B.']);
  await changeSection(ctx, a!, back);
  expect(await headings()).toEqual(['A', 'B', '.Under B']);
  expect(await inAll()).toEqual(['A Marshes', 'A Mills', 'B Mills', 'B Of B.']);
  await expect(changeSection(ctx, under, { act: 'take in', section: b! })).rejects.toMatchObject({
    status: 422,
  });
  await expect(changeSection(ctx, a!, { act: 'take in', section: a! })).rejects.toMatchObject({
    status: 422,
  });
});
