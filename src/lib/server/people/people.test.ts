/** Who made what, and one name called otherwise everywhere. */
import type { Knex } from 'knex';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { orcidWords } from '../../core/forms';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { renameEverywhere } from '../many';
import { binSources, getSource, listIds, undo } from '../sources';
import { insertSource } from '../sources/repository';
import { atOnce, openTestLibrary } from '../test-library';
import { namedIn, namesIn, setOrcid } from './index';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const add = (fields: object) =>
  transaction(ctx, async (inner) => {
    const record = sourceRecord.parse({ type: 'article-journal', ...fields });
    return (await insertSource(inner, record, { why: 'test' })).id;
  });
const pell = { family: 'Pell', given: 'M.' };

it('names people of any role and containers, with how many sources, found by words', async () => {
  await add({
    title: 'A',
    author: [pell, { literal: 'Harbour Board' }],
    'container-title': 'Marsh <i>Letters</i>',
  });
  await add({ title: 'B', editor: [pell], 'container-title': 'Marsh Letters' });
  const gone = await add({ title: 'C', author: [pell] });
  await binSources(ctx, [gone], true);
  expect(await namesIn(ctx, 'person', '', undefined)).toEqual({
    total: 2,
    items: [
      { name: 'Pell, M.', n: 2 },
      { name: 'Harbour Board', n: 1 },
    ],
  });
  expect((await namesIn(ctx, 'person', 'harb', undefined)).items).toEqual([{ name: 'Harbour Board', n: 1 }]);
  expect((await namesIn(ctx, 'container', '', undefined)).items).toEqual([{ name: 'Marsh Letters', n: 2 }]);
  expect((await namesIn(ctx, 'person', '', 'no project')).total).toBe(0);
});

it('calls one otherwise wherever it stands, as one thing to take back', async () => {
  const a = await add({
    title: 'A',
    author: [pell, { literal: 'Harbour Board' }],
    'container-title': 'Marsh <i>Letters</i>',
  });
  const b = await add({ title: 'B', editor: [pell], author: [{ family: 'Ng', given: 'T.' }] });
  expect((await namedIn(ctx, 'person', 'Pell, M.')).map((s) => s.id).sort()).toEqual([a, b].sort());
  const revisions = atOnce(
    await renameEverywhere(ctx, { kind: 'person', name: 'Pell, M.', to: 'Pell, Margaret' }),
  );
  expect(revisions).toHaveLength(2);
  const margaret = { family: 'Pell', given: 'Margaret' };
  expect((await getSource(ctx, a)).record.author).toEqual([margaret, { literal: 'Harbour Board' }]);
  expect((await getSource(ctx, b)).record).toMatchObject({ editor: [margaret], author: [{ family: 'Ng' }] });
  expect(await listIds(ctx, { text: 'person:"pell, margaret"' })).toHaveLength(2);
  await undo(ctx, revisions);
  expect(await listIds(ctx, { text: 'person:"Pell, M."' })).toHaveLength(2);
  // An institution stays one, also where its name has a comma.
  await renameEverywhere(ctx, { kind: 'person', name: 'Harbour Board', to: 'Board, Harbour' });
  expect((await getSource(ctx, a)).record.author![1]).toEqual({ literal: 'Board, Harbour' });
  await renameEverywhere(ctx, { kind: 'container', name: 'Marsh Letters', to: 'Letters from the Marsh' });
  expect((await getSource(ctx, a)).record['container-title']).toBe('Letters from the Marsh');
  await expect(renameEverywhere(ctx, { kind: 'person', name: 'Nobody', to: 'X' })).rejects.toMatchObject({
    code: 'not-here',
  });
});

it('says who is meant by a name, names the other names of that person, and carries it when a name is called otherwise', async () => {
  await add({ title: 'A', author: [pell] });
  await add({ title: 'B', author: [{ family: 'Pell', given: 'Margaret' }] });
  expect(orcidWords.safeParse({ name: 'Pell, M.', orcid: '0000-0002-1825-0098' }).success).toBe(false);
  const say = (name: string, orcid: string) => setOrcid(ctx, orcidWords.parse({ name, orcid }));
  const first = await say('Pell, M.', 'https://orcid.org/0000-0002-1825-0097');
  expect(first.back).toEqual({ name: 'Pell, M.', orcid: null });
  await say('Pell, Margaret', '0000000218250097');
  const orcid = '0000-0002-1825-0097';
  expect((await namesIn(ctx, 'person', '', undefined)).items).toEqual([
    { name: 'Pell, M.', n: 1, orcid, also: ['Pell, Margaret'] },
    { name: 'Pell, Margaret', n: 1, orcid, also: ['Pell, M.'] },
  ]);
  await renameEverywhere(ctx, { kind: 'person', name: 'Pell, M.', to: 'Pell, Margaret' });
  expect((await namesIn(ctx, 'person', '', undefined)).items).toEqual([
    { name: 'Pell, Margaret', n: 2, orcid },
  ]);
  // As one says it, which is not as names are shown.
  await renameEverywhere(ctx, { kind: 'person', name: 'Pell, Margaret', to: 'Mary Pell' });
  expect((await namesIn(ctx, 'person', '', undefined)).items).toEqual([{ name: 'Pell, Mary', n: 2, orcid }]);
});

it('takes over an ORCID that came with a name, where nobody has said one', async () => {
  const orcids = { 'Pell, M.': '0000-0002-1825-0097', 'Ng, T.': '0000-0001-5109-3700' };
  const retexa = { origins: {}, tags: [], kept: {}, orcids };
  await setOrcid(ctx, orcidWords.parse({ name: 'Ng, T.', orcid: '0000-0002-1694-233X' }));
  await add({ title: 'A', author: [pell, { family: 'Ng', given: 'T.' }], retexa });
  const orcid = async (name: string) =>
    (await namesIn(ctx, 'person', '', undefined)).items.find((one) => one.name === name)!.orcid;
  expect(await orcid('Pell, M.')).toBe('0000-0002-1825-0097');
  expect(await orcid('Ng, T.')).toBe('0000-0002-1694-233X');
});
