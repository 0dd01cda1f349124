import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord } from '../../core/source';
import { contextOf, makeLibrary, makePerson, transaction, type Context } from '../access/context';
import { copiesOf } from '../copies';
import { insertPassage, passagesOfSources } from '../passages/repository';
import { getSource, insertSource } from '../sources/repository';
import { keepTestCopy, openTestLibrary } from '../test-library';
import { bringTo, takeBack } from '.';

let db: Knex;
let mine: Context;
let group: Context;
let id: string;
let copyId: string;

const record = (title: string, DOI?: string) =>
  sourceRecord.parse({ type: 'book', title, ...(DOI ? { DOI } : {}), retexa: { tags: ['ponds'] } });
const passage = (ctx: Context, gist: string, visibility: 'private' | 'library', at: string | null = copyId) =>
  transaction(
    ctx,
    (inner) =>
    insertPassage(inner, { sourceId: id, copyId: at, kind: 'quotation', selectors: null, exact: 'Salt', locator: { label: 'page', value: '3' }, gist, ownWords: '', tint: 'claim', visibility, anchor: 'found' }), // prettier-ignore
  );

beforeEach(async () => {
  ({ db, ctx: mine } = await openTestLibrary());
  const libraryId = await makeLibrary(db, mine.personId, 'Group');
  group = (await contextOf(db, libraryId, mine.personId))!;
  id = (
    await transaction(mine, (inner) => insertSource(inner, record('Sluices', '10.5555/a'), { why: 'test' }))
  ).id;
  copyId = (await keepTestCopy(mine, id, { text: 'Salt of the sea', sha256: 'c'.repeat(64) })).id;
});
afterEach(() => db.destroy());

const all = async (ctx: Context) =>
  (await db('source').where({ library_id: ctx.libraryId }).whereNull('binned').select('id', 'title', 'citekey')) as { id: string; title: string; citekey: string }[]; // prettier-ignore

describe('bringing to another library', () => {
  it('brings the record, the documents and one’s own passages, and leaves what others keep', async () => {
    await passage(mine, 'for all', 'library');
    await passage(mine, 'for me', 'private');
    await passage(mine, 'on nothing', 'library', null);
    const { personId } = await makePerson(db, 'Ben');
    await db('membership').insert({ library_id: mine.libraryId, person_id: personId, role: 'editor' });
    await passage({ ...mine, personId }, 'Ben’s', 'library');
    const crossed = await bringTo(mine, { ids: [id], libraryId: group.libraryId, move: false });
    expect(crossed).toMatchObject({ added: 1, known: 0, documents: 1, passages: 3, revisions: [] });
    const [there] = await all(group);
    expect((await getSource(group, there!.id)).record).toMatchObject({
      title: 'Sluices',
      retexa: { tags: ['ponds'] },
    });
    const [copy] = await copiesOf(group, there!.id);
    expect(copy).toMatchObject({ sha256: 'c'.repeat(64), source_id: there!.id });
    const brought = await passagesOfSources(group, [there!.id]);
    expect(brought.map((p) => [p.gist, p.visibility, p.copyId === copy!.id]).sort()).toEqual([
      ['for all', 'library', true],
      ['for me', 'private', true],
      ['on nothing', 'library', false],
    ]);
    expect(await all(mine)).toHaveLength(1);
  });

  it('knows the same work there: brought twice, or by its DOI, it is one, and gets what it lacked', async () => {
    await bringTo(mine, { ids: [id], libraryId: group.libraryId, move: false });
    await passage(mine, 'kept since', 'library');
    expect(await bringTo(mine, { ids: [id], libraryId: group.libraryId, move: false })).toMatchObject({ added: 0, known: 1, documents: 0, passages: 1 }); // prettier-ignore
    const other = await transaction(mine, (inner) =>
      insertSource(inner, record('Sluices, again', '10.5555/A'), { why: 'test' }),
    );
    expect(await bringTo(mine, { ids: [other.id], libraryId: group.libraryId, move: false })).toMatchObject({
      added: 0,
      known: 1,
    });
    expect(await all(group)).toHaveLength(1);
  });

  it('moved, it is in the bin here, and taken back it is here again and there no more', async () => {
    const crossed = await bringTo(mine, { ids: [id], libraryId: group.libraryId, move: true });
    expect([await all(mine), await all(group)].map((list) => list.length)).toEqual([0, 1]);
    await takeBack(mine, { libraryId: group.libraryId, ids: crossed.ids, moved: [id] });
    expect([await all(mine), await all(group)].map((list) => list.length)).toEqual([1, 0]);
  });

  it('takes the right to edit there, and to move also here; of another’s library nothing is told', async () => {
    const { personId, libraryId } = await makePerson(db, 'Ben');
    const to = { ids: [id], libraryId: group.libraryId, move: false };
    await db('membership').insert({ library_id: mine.libraryId, person_id: personId, role: 'reader' });
    await db('membership').insert({ library_id: group.libraryId, person_id: personId, role: 'annotator' });
    const ben: Context = { ...mine, personId, role: 'reader' };
    await expect(bringTo(ben, to)).rejects.toMatchObject({ status: 403 });
    await expect(bringTo(mine, { ...to, libraryId })).rejects.toMatchObject({ status: 404 });
    await expect(bringTo(ben, { ids: [id], libraryId, move: true })).rejects.toMatchObject({ status: 403 });
    expect(await bringTo(ben, { ids: [id], libraryId, move: false })).toMatchObject({
      added: 1,
      passages: 0,
    });
    await expect(bringTo(mine, { ...to, libraryId: mine.libraryId })).rejects.toMatchObject({ status: 422 });
    await expect(bringTo(mine, { ...to, ids: [id, 'none'] })).rejects.toMatchObject({ status: 404 });
    expect(await all(group)).toEqual([]);
  });
});
