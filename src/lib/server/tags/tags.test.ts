import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { changeTag } from '../many';
import { keepPassage } from '../passages';
import { editSource, editSources, getSource, listIds, undo } from '../sources';
import { insertSource } from '../sources/repository';
import { atOnce, openTestLibrary } from '../test-library';
import { setTagLooks, tagLooks, tagsInUse, tagsLook } from './index';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const add = async (title: string, ...tags: string[]) =>
  (
    await transaction(ctx, (inner) =>
      insertSource(
        inner,
        sourceRecord.parse({ type: 'book', title, retexa: { origins: {}, tags, kept: {} } }),
        { why: 'test' },
      ),
    )
  ).id;
const mark = (sourceId: string, visibility: 'library' | 'private', ...tags: string[]) =>
  keepPassage(ctx, {
    kind: 'response', tint: 'claim', gist: 'x', ownWords: '', locator: null, visibility, copyId: null, sourceId, exact: '', selectors: null, tags,
  }); // prettier-ignore
const tagsOf = async (id: string) => (await getSource(ctx, id)).record.retexa.tags;
const inUse = async () =>
  (await tagsInUse(ctx)).map(({ tag, sources, passages }) => [tag, sources, passages]);

describe('tags', () => {
  it('are counted on sources and passages, and called otherwise everywhere as one step', async () => {
    const one = await add('A', 'marsh', 'law');
    await add('B', 'Marsh');
    await mark(one, 'library', 'marsh');
    expect(await inUse()).toEqual([
      ['law', 1, 0],
      ['marsh', 1, 1],
      ['Marsh', 1, 0],
    ]);
    const made = await changeTag(ctx, { act: 'rename', tag: 'marsh', to: 'Marsh' });
    const { sources, passages } = made;
    const revisions = atOnce(made);
    expect([revisions.length, sources, passages]).toEqual([2, 1, 1]);
    expect(await inUse()).toEqual([
      ['law', 1, 0],
      ['Marsh', 2, 1],
    ]);
    expect(await tagsOf(one)).toEqual(['Marsh', 'law']);
    expect(await listIds(ctx, { text: 'tag:marsh' })).toHaveLength(2);
    await undo(ctx, revisions);
    expect(await inUse()).toContainEqual(['marsh', 1, 1]);
    expect(await tagsOf(one)).toEqual(['marsh', 'law']);
  });

  it('are added to many without reading them, as if each had been edited, and taken back', async () => {
    const all = async () => ({
      sources: (await db('source').orderBy('id').select('id', 'record', 'revision')) as unknown[],
      tags: (await db('source_tag').orderBy(['source_id', 'tag'])) as unknown[],
      search: (await db('search').orderBy('rowid').select('rowid', 'title', 'body')) as unknown[],
    });
    const ids = [await add('A', 'law'), await add('Ä “quoted” — 鰯'), await add('C', 'salt marsh')];
    const before = await all();
    const { revisions } = await editSources(ctx, ids, { tag: 'salt marsh' });
    expect(revisions).toHaveLength(2);
    const after = await all();
    await undo(ctx, revisions);
    expect(await all()).toEqual({
      ...before,
      sources: before.sources.map((row) => ({
        ...(row as { revision: number }),
        revision: expect.any(Number) as number,
      })),
    });
    for (const id of ids) {
      const { revision, record } = await getSource(ctx, id);
      if (!record.retexa.tags.includes('salt marsh'))
        await editSource(ctx, id, revision, { fields: {}, tags: [...record.retexa.tags, 'salt marsh'] });
    }
    const bySingleEdits = await all();
    const records = (of: typeof after) => of.sources.map((row) => (row as { record: string }).record);
    expect(records(after)).toEqual(records(bySingleEdits));
    expect([after.tags, after.search]).toEqual([bySingleEdits.tags, bySingleEdits.search]);
    await expect(editSources(ctx, [ids[0]!, 'nothing'], { tag: 'x' })).rejects.toThrow();
    expect(await listIds(ctx, { text: 'tag:x' })).toEqual([]);
  });

  it('stand once where a source has both that are joined, and are taken off', async () => {
    const one = await add('A', 'marsh', 'salt marsh');
    await changeTag(ctx, { act: 'rename', tag: 'marsh', to: 'salt marsh' });
    expect(await tagsOf(one)).toEqual(['salt marsh']);
    const revisions = atOnce(await changeTag(ctx, { act: 'take off', tag: 'salt marsh' }));
    expect(await inUse()).toEqual([]);
    await undo(ctx, revisions);
    expect(await tagsOf(one)).toEqual(['salt marsh']);
    await expect(changeTag(ctx, { act: 'take off', tag: 'none' })).rejects.toThrow('not in the library');
  });

  it('leave alone what others keep for themselves', async () => {
    const one = await add('A', 'marsh');
    await db('person').insert({ id: 'q', name: 'Q', created: 'x' });
    const { id } = await mark(one, 'private', 'marsh');
    await db('passage').where({ id }).update({ owner_id: 'q' });
    expect(await inUse()).toEqual([['marsh', 1, 0]]);
    await changeTag(ctx, { act: 'rename', tag: 'marsh', to: 'wetland' });
    expect(await db('passage_tag').select('tag')).toEqual([{ tag: 'marsh' }]);
    expect(await inUse()).toEqual([['wetland', 1, 0]]);
  });

  it('are written without what is made from the rest of a record being made again', async () => {
    const ids = [await add('Ponds'), await add('Ponds')];
    const asked: string[] = [];
    db.on('query', ({ sql }: { sql: string }) => asked.push(sql));
    await editSources(ctx, ids, { tag: 'silt' });
    db.removeAllListeners('query');
    expect(asked.filter((sql) => /likeness|`finding`|spelling/.test(sql))).toEqual([]);
    expect(await listIds(ctx, { text: 'silt' })).toEqual(expect.arrayContaining(ids));
  });

  it('look as was said, go on so when they are called otherwise, and as before once that is taken back', async () => {
    const marsh = { tint: 'moss', pattern: 'stripes', group: 'Places' } as const;
    await add('A', 'marsh', 'law');
    const { back } = await setTagLooks(ctx, { looks: { marsh, law: { ...marsh, tint: null } } });
    expect(await tagLooks(ctx)).toEqual({ marsh, law: { ...marsh, tint: null } });
    const revisions = atOnce(await changeTag(ctx, { act: 'rename', tag: 'marsh', to: 'wetland' }));
    expect((await tagLooks(ctx)).wetland).toEqual(marsh);
    // One that joins another looks as that does.
    await changeTag(ctx, { act: 'rename', tag: 'law', to: 'wetland' });
    expect((await tagLooks(ctx)).wetland).toEqual(marsh);
    await undo(ctx, revisions).catch(() => undefined);
    expect((await tagLooks(ctx)).marsh).toEqual(marsh);
    await setTagLooks(ctx, back);
    expect(Object.keys(await tagLooks(ctx))).toEqual(['wetland']);
    expect(tagsLook.safeParse({ looks: { a: { ...marsh, tint: 'gold' } } }).success).toBe(false);
    expect(tagsLook.parse({ looks: { a: { ...marsh, group: '  ' } } }).looks.a!.group).toBeNull();
  });
  it('are those of their own library', async () => {
    await setTagLooks(ctx, { looks: { marsh: { tint: 'moss', pattern: 'full', group: null } } });
    expect(await tagLooks({ ...ctx, libraryId: 'another' })).toEqual({});
  });
});
