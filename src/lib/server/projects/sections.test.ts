/** Sections of a project: a tree, what is placed in it, and what takes each change back. */
import type { Knex } from 'knex';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { transaction, type Context } from '../access/context';
import { deleteForGood } from '../bin';
import { binOf, countsOf } from '../overview';
import { listSources } from '../sources';
import { insertSource } from '../sources/repository';
import { openTestLibrary } from '../test-library';
import {
  changePlaced,
  changeProject,
  changeSection,
  file,
  listSections,
  makeSection,
  outlinesOf,
} from './index';
import { insertProject } from './repository';

let db: Knex;
let ctx: Context;
let projectId: string;
const look = { style: 'apa', locale: 'en-US' };

beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
  projectId = (await insertProject(ctx, { name: 'Thesis', ...look })).id;
});
afterEach(() => db.destroy());

const add = (title: string) =>
  transaction(ctx, async (inner) => {
    const record = { type: 'book' as const, title, retexa: { origins: {}, tags: [], kept: {} } };
    return (await insertSource(inner, record, { why: 'test' })).id;
  });
const section = async (name: string, parentId: string | null = null) =>
  (await makeSection(ctx, projectId, name, parentId)).id;
const outline = async () =>
  (await outlinesOf(ctx)).map((s) => `${'.'.repeat(s.depth)}${s.name} ${s.sources}`);
const titles = async (sectionId: string, sort: 'own' | 'title' = 'own') =>
  (
    await listSources(ctx, { projectId, section: sectionId }, look, { from: { offset: 0 }, limit: 50, sort })
  ).items.map((i) => i.title);

it('is a tree that is moved about, and every move is taken back', async () => {
  const [a, b, c] = [await section('A'), await section('B'), await section('C')];
  const under = await section('Under A', a);
  expect(await outline()).toEqual(['A 0', '.Under A 0', 'B 0', 'C 0']);
  const { back } = await changeSection(ctx, c, { act: 'move', parentId: a, before: under });
  expect(await outline()).toEqual(['A 0', '.C 0', '.Under A 0', 'B 0']);
  await changeSection(ctx, c, back);
  expect(await outline()).toEqual(['A 0', '.Under A 0', 'B 0', 'C 0']);
  await expect(changeSection(ctx, a, { act: 'move', parentId: under, before: null })).rejects.toThrow(
    'under itself',
  );
  const renamed = await changeSection(ctx, b, { act: 'rename', name: 'Bread' });
  expect(renamed.back).toEqual({ act: 'rename', name: 'B' });
  const other = await insertProject(ctx, { name: 'Other', ...look });
  await expect(makeSection(ctx, other.id, 'X', a)).rejects.toThrow('its own project');
});

it('holds sources once, counts those of sections under it, and shows them in its own order', async () => {
  const [a, under] = await Promise.resolve(section('A')).then(async (id) => [id, await section('Under', id)]);
  const [one, two, three] = [await add('One'), await add('Two'), await add('Three')];
  const placed = await changePlaced(ctx, a!, { act: 'place', ids: [three, one] });
  await changePlaced(ctx, under!, { act: 'place', ids: [two, one] });
  expect(placed.changed).toBe(2);
  expect(await outline()).toEqual(['A 3', '.Under 2']);
  expect(await titles(a!)).toEqual(['Three', 'One', 'Two']);
  expect(await titles(a!, 'title')).toEqual(['One', 'Three', 'Two']);
  // Placed in a section, it is in the project; taken back, it is in neither.
  expect((await countsOf(ctx, projectId)).sources).toBe(3);
  await changePlaced(ctx, a!, placed.back!);
  expect(await titles(a!)).toEqual(['Two']);
  expect((await countsOf(ctx, projectId)).sources).toBe(1);
});

it('is put in another order, and the order there was comes back', async () => {
  const a = await section('A');
  const ids = await Promise.all(['1', '2', '3', '4'].map(add));
  await changePlaced(ctx, a, { act: 'place', ids });
  const { back } = await changePlaced(ctx, a, { act: 'order', ids: [ids[3]!, ids[1]!], before: ids[0]! });
  expect(await titles(a)).toEqual(['2', '4', '1', '3']);
  await changePlaced(ctx, a, back!);
  expect(await titles(a)).toEqual(['1', '2', '3', '4']);
  const out = await changePlaced(ctx, a, { act: 'take out', ids: [ids[1]!] });
  expect(await titles(a)).toEqual(['1', '3', '4']);
  await changePlaced(ctx, a, out.back!);
  expect(await titles(a)).toEqual(['1', '2', '3', '4']);
  await expect(changePlaced(ctx, a, { act: 'order', ids: [await add('5')], before: null })).rejects.toThrow(
    'right under',
  );
});

it('puts what is new first where the project says so', async () => {
  const a = await section('A');
  await changePlaced(ctx, a, { act: 'place', ids: [await add('Old')] });
  await changeProject(ctx, projectId, { newFirst: true });
  await changePlaced(ctx, a, { act: 'place', ids: [await add('New'), await add('Newer')] });
  expect(await titles(a)).toEqual(['New', 'Newer', 'Old']);
});

it('goes to the bin with what stands under it, comes back, and is deleted for good', async () => {
  const a = await section('A');
  const under = await section('Under', a);
  await section('Deep', under);
  const id = await add('One');
  await changePlaced(ctx, under, { act: 'place', ids: [id] });
  expect(await titles('none')).toEqual([]);
  await changeSection(ctx, under, { act: 'bin' });
  expect(await outline()).toEqual(['A 0']);
  expect(await titles('none')).toEqual(['One']);
  expect((await countsOf(ctx)).bin).toBe(1);
  expect((await binOf(ctx)).sections).toMatchObject([{ id: under, name: 'Under', project: 'Thesis' }]);
  await changeSection(ctx, a, { act: 'bin' });
  expect((await countsOf(ctx)).bin).toBe(2);
  // What it stood under is in the bin: it comes back to the top.
  await changeSection(ctx, under, { act: 'bring back' });
  expect(await outline()).toEqual(['Under 1', '.Deep 0']);
  await deleteForGood(ctx, 'sections', [a]);
  expect((await countsOf(ctx)).bin).toBe(0);
  await expect(deleteForGood(ctx, 'sections', [under])).rejects.toThrow('in the bin any more');
  await changeSection(ctx, under, { act: 'bin' });
  await deleteForGood(ctx, 'sections', [under]);
  expect(await listSections(ctx)).toEqual([]);
  expect((await countsOf(ctx)).sources).toBe(1);
});

it('leaves out what is taken out of the project, and has it again when that is taken back', async () => {
  const a = await section('A');
  const id = await add('One');
  await changePlaced(ctx, a, { act: 'place', ids: [id] });
  await file(ctx, projectId, [id], false);
  expect([await outline(), await titles(a)]).toEqual([['A 0'], []]);
  await file(ctx, projectId, [id], true);
  expect(await titles(a)).toEqual(['One']);
});
