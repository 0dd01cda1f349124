/** Notes with a look, and what they name. */
import type { Knex } from 'knex';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { plainOf, type NoteContent } from '../../core/notes';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { deleteForGood } from '../bin';
import { merge, undoMerge } from '../duplicates';
import { binSources, undo } from '../sources';
import { insertSource } from '../sources/repository';
import { openTestLibrary } from '../test-library';
import { binNote, editNote, keepNote, listNotes, nameable } from './index';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const LOOK = { style: 'apa', locale: 'en-US' };
const nowhere = { projectId: null, sourceId: null };
const add = (family: string, title: string) =>
  transaction(ctx, async (inner) => {
    const record = sourceRecord.parse({
      type: 'book',
      title,
      author: [{ family }],
      issued: { 'date-parts': [[2001]] },
    });
    return (await insertSource(inner, record, { why: 'test' })).id;
  });
const naming = (kind: 'source' | 'note', id: string, label = 'as it was typed'): NoteContent => [
  {
    type: 'paragraph',
    content: [
      { type: 'text', text: 'See ' },
      { type: 'named', attrs: { kind, id, label } },
    ],
  },
];
const only = async (filter = {}) => (await listNotes(ctx, filter))[0]!;

it('calls a source it names as that is called now, and stands with it', async () => {
  const pell = await add('Pell', 'Marsh gates');
  await keepNote(ctx, { ...nowhere, content: naming('source', pell) });
  expect((await only({ sourceId: pell })).body).toBe('See Pell 2001');
  expect(plainOf((await only()).content!)).toBe('See Pell 2001');
});

it('goes over with a source that goes into another, and back', async () => {
  const [pell, ng] = [await add('Pell', 'Marsh gates'), await add('Ng', 'Marsh gates')];
  await keepNote(ctx, { ...nowhere, content: naming('source', pell) });
  const merged = await merge(ctx, { ids: [ng, pell], bases: [1, 1] });
  expect((await listNotes(ctx, { sourceId: ng })).map(({ content }) => plainOf(content!))).toEqual([
    'See Ng 2001',
  ]);
  await undoMerge(ctx, merged);
  expect(await listNotes(ctx, { sourceId: ng })).toEqual([]);
  expect(await listNotes(ctx, { sourceId: pell })).toHaveLength(1);
});

it('has words in place of what is gone for good', async () => {
  const pell = await add('Pell', 'Marsh gates');
  const { id } = await keepNote(ctx, { ...nowhere, content: naming('source', pell) });
  await binSources(ctx, [pell], true);
  await deleteForGood(ctx, 'sources', [pell]);
  const { content, revision } = await only();
  expect(content).toEqual([
    {
      type: 'paragraph',
      content: [
        { type: 'text', text: 'See ' },
        { type: 'text', text: 'Pell 2001' },
      ],
    },
  ]);
  await editNote(ctx, id, revision, { content });
  expect(await only()).toMatchObject({ body: 'See Pell 2001', content: null });
});

it('names another note without keeping its words, and is told of there', async () => {
  const toll = await keepNote(ctx, { ...nowhere, body: 'The toll books are in Northsound' });
  const about = await keepNote(ctx, { ...nowhere, content: naming('note', toll.id) });
  expect(about.body).toBe('See another note');
  const [shown, named] = await listNotes(ctx, {});
  expect(plainOf(shown!.content!)).toBe('See The toll books are in Northsound');
  expect(named!.namedBy).toEqual([{ id: about.id, called: 'See another note' }]);
  await binNote(ctx, about.id, true);
  expect((await only()).namedBy).toBeUndefined();
});

it('does not tell what somebody else keeps private', async () => {
  const other = { ...ctx, personId: 'somebody' };
  await db('person').insert({ id: 'somebody', name: 'Somebody', created: 'x' });
  const hidden = await keepNote(other, { ...nowhere, body: 'between us', visibility: 'private' });
  await keepNote(other, { ...nowhere, content: naming('note', hidden.id) });
  const seen = await only();
  expect(JSON.stringify(seen)).not.toContain('between us');
  expect(plainOf(seen.content!)).toBe('See another note');
});

it('loses its look when its words are said anew, and has it again when that is taken back', async () => {
  const bold: NoteContent = [
    { type: 'paragraph', content: [{ type: 'text', text: 'tides', marks: [{ type: 'bold' }] }] },
  ];
  const { id } = await keepNote(ctx, { ...nowhere, content: bold, tint: 'moss' });
  const { revisionId } = await editNote(ctx, id, 1, { body: 'tides and tolls' });
  expect(await only({ tint: 'moss' })).toMatchObject({ body: 'tides and tolls', content: null });
  await undo(ctx, [revisionId!]);
  expect(await only()).toMatchObject({ body: 'tides', content: bold, tint: 'moss' });
  expect(await listNotes(ctx, { tint: 'brick' })).toEqual([]);
});

it('offers what fits to be named, the latest of no words', async () => {
  const pell = await add('Pell', 'Marsh <i>gates</i>');
  await add('Ng', 'Harbours');
  const note = await keepNote(ctx, { ...nowhere, body: 'marsh maps are missing' });
  expect(await nameable(ctx, 'mars', LOOK)).toEqual([
    { kind: 'source', id: pell, label: 'Pell 2001', more: 'Marsh gates' },
    { kind: 'note', id: note.id, label: 'marsh maps are missing', more: '' },
  ]);
  expect((await nameable(ctx, '', LOOK)).map(({ kind }) => kind)).toEqual(['source', 'source', 'note']);
  expect(await nameable(ctx, 'nothing at all', LOOK)).toEqual([]);
});
