import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord } from '../../core/source';
import { binOf, countsOf, deskOf } from '../overview';
import { editNote, keepNote, listNotes } from '../notes';
import { editPassage, listPassages, passagesWhere } from '../passages';
import { getPassage, insertPassage } from '../passages/repository';
import { addProject, file, makeSection } from '../projects';
import { addPreset } from '../presets';
import { searchEverything } from '../search';
import { listSources, undo } from '../sources';
import { insertSource } from '../sources/repository';
import { openTestLibrary } from '../test-library';
import { change } from './change';
import { makePerson, transaction, type Context } from './context';
import { listen, type LiveEvent } from './events';

let db: Knex;
let mine: Context;
let colleague: Context;
let stranger: Context;
let sourceId: string;
let privateId: string;
beforeEach(async () => {
  ({ db, ctx: mine } = await openTestLibrary());
  const created = 'x';
  await db('person').insert([
    { id: 'colleague', name: 'A colleague', created },
    { id: 'stranger', name: 'A stranger', created },
  ]);
  await db('membership').insert({ library_id: mine.libraryId, person_id: 'colleague', role: 'editor' });
  await db('library').insert({ id: 'elsewhere', name: 'Elsewhere', owner_id: 'stranger', created });
  colleague = { ...mine, personId: 'colleague', role: 'editor' };
  stranger = { db, libraryId: 'elsewhere', personId: 'stranger', role: 'owner' };
  const said = {
    copyId: null,
    kind: 'response' as const,
    selectors: null,
    locator: null,
    ownWords: '',
    tint: 'doubt' as const,
    anchor: 'found' as const,
  };
  await transaction(mine, async (inner) => {
    const record = sourceRecord.parse({ type: 'book', title: 'A book of ponds' });
    sourceId = (await insertSource(inner, record, { checked: true, why: 'test' })).id;
    privateId = (
      await insertPassage(inner, {
        ...said,
        sourceId,
        exact: 'zostera',
        gist: 'My private doubt',
        visibility: 'private',
      })
    ).id;
    await insertPassage(inner, { ...said, sourceId, exact: 'pond', gist: 'For all', visibility: 'library' });
  });
});
afterEach(() => db.destroy());

const look = { style: 'apa', locale: 'en-US' };
/** Everything a person is shown of passages, in every list, count and search. */
const seenBy = async (ctx: Context) =>
  JSON.stringify([
    await listPassages(ctx, {}),
    await listPassages(ctx, { text: 'zostera' }),
    await passagesWhere(ctx, { source_id: sourceId }),
    await deskOf(ctx),
    await binOf(ctx),
    await searchEverything(ctx, 'zostera', look, { limit: 20 }),
    await searchEverything(ctx, 'doubt', look, { limit: 20 }),
    (await listSources(ctx, {}, look, { from: { offset: 0 }, limit: 9, sort: 'author' })).items.map(
      (i) => i.passages,
    ),
  ]);

describe('what is private', () => {
  it('is its person’s alone, in every list, count and search', async () => {
    expect(await seenBy(mine)).toContain('My private doubt');
    expect((await countsOf(mine)).passages).toBe(2);
    const seen = await seenBy(colleague);
    expect(seen).not.toContain('private doubt');
    expect(seen).not.toContain('zostera');
    expect(seen).toContain('For all');
    expect((await countsOf(colleague)).passages).toBe(1);
    await expect(getPassage(colleague, privateId)).rejects.toMatchObject({ code: 'not-here' });
  });
  it('is seen by those it is shown to by name, and counted for them; nobody else says who sees it', async () => {
    const { personId: third } = await makePerson(db, 'Third');
    await db('membership').insert({ library_id: mine.libraryId, person_id: third, role: 'editor' });
    const { revision, kind, tint, gist, ownWords, locator, visibility } = await getPassage(mine, privateId);
    const said = { kind, tint, gist, ownWords, locator, visibility, wording: null, tags: [] };
    await editPassage(mine, privateId, { base: revision, said: { ...said, shownTo: [colleague.personId] } });
    expect(await seenBy(colleague)).toContain('My private doubt');
    expect((await countsOf(colleague)).passages).toBe(2);
    const other = { ...colleague, personId: third };
    expect(await seenBy(other)).not.toContain('private doubt');
    expect((await countsOf(other)).passages).toBe(1);
    // An editor may word it otherwise and says nothing of who sees it.
    await editPassage(colleague, privateId, {
      base: revision + 1,
      said: { ...said, gist: 'A doubt of both' },
    });
    expect((await getPassage(mine, privateId)).shownTo).toEqual([colleague.personId]);
    await expect(
      editPassage(colleague, privateId, { base: revision + 2, said: { ...said, visibility: 'library' } }),
    ).rejects.toMatchObject({ status: 403 });
    // Given to all, nobody is named any more; a stranger is not taken.
    await editPassage(mine, privateId, {
      base: revision + 2,
      said: { ...said, visibility: 'private', shownTo: [stranger.personId] },
    });
    expect((await getPassage(mine, privateId)).shownTo).toEqual([]);
    expect((await countsOf(colleague)).passages).toBe(1);
  });
  it('holds for notes too', async () => {
    const note = { body: 'zostera in private', projectId: null, sourceId, visibility: 'private' as const };
    const { id } = await keepNote(mine, note);
    await keepNote(mine, { ...note, body: 'zostera for all', visibility: 'library' });
    const notesOf = async (ctx: Context) => (await listNotes(ctx, { text: 'zostera' })).map((n) => n.body);
    expect(await notesOf(mine)).toHaveLength(2);
    expect(await notesOf(colleague)).toEqual(['zostera for all']);
    expect([(await countsOf(mine)).notes, (await countsOf(colleague)).notes]).toEqual([2, 1]);
    await expect(editNote(colleague, id, 1, { body: 'x' })).rejects.toMatchObject({ code: 'not-here' });
    await editNote(mine, id, 1, { shownTo: [colleague.personId] });
    expect(await notesOf(colleague)).toHaveLength(2);
    expect((await countsOf(colleague)).notes).toBe(2);
    await expect(editNote(colleague, id, 2, { visibility: 'library' })).rejects.toMatchObject({
      status: 403,
    });
    await editNote(colleague, id, 2, { body: 'zostera, as both see it' });
    const { revisionId } = await editNote(mine, id, 3, { visibility: 'library' });
    await undo(mine, [revisionId!]);
    expect((await countsOf(colleague)).notes).toBe(2);
    expect(await seenBy(stranger)).not.toContain('zostera');
  });
  it('stays so in the bin', async () => {
    await db('passage').update({ binned: '2026-01-01' });
    expect((await countsOf(mine)).bin).toBe(2);
    expect((await countsOf(colleague)).bin).toBe(1);
    expect(JSON.stringify(await binOf(colleague))).not.toContain('zostera');
  });
});

describe('another library', () => {
  it('is not there: nothing of it is listed, counted, found or named', async () => {
    const seen = await seenBy(stranger);
    expect(seen).not.toContain('For all');
    expect(seen).not.toContain('ponds');
    expect(await countsOf(stranger)).toEqual({
      sources: 0,
      intake: 0,
      findings: 0,
      passages: 0,
      duplicates: 0,
      leads: 0,
      notes: 0,
      bin: 0,
    });
    const project = await addProject(mine, { name: 'A paper', ...look });
    await expect(makeSection(stranger, project.id, 'Theirs')).rejects.toMatchObject({ code: 'not-here' });
    const theirs = await addProject(stranger, { name: 'Theirs', ...look });
    await expect(file(stranger, theirs.id, [sourceId], true)).rejects.toMatchObject({ code: 'not-here' });
    expect(await db('filing')).toEqual([]);
    const preset = {
      name: 'x',
      projectId: project.id,
      sectionId: null,
      type: null,
      asked: [],
      defaults: {},
      tags: [],
      keepPage: true,
      keepPdf: true,
    };
    await expect(addPreset(stranger, preset)).rejects.toMatchObject({ code: 'not-here' });
    expect(await db('preset')).toEqual([]);
  });
});

describe('the door for change', () => {
  const edit = { right: 'edit', of: ['sources', 'notes'] } as const;

  it('is closed to who only reads, and nothing is done', async () => {
    let done = false;
    const reader: Context = { ...mine, role: 'reader' };
    const asked = change(reader, edit, async () => void (done = true));
    await expect(asked).rejects.toMatchObject({ status: 403, code: 'not-allowed' });
    await expect(change(colleague, { ...edit, right: 'lead' }, async () => undefined)).rejects.toMatchObject({
      code: 'not-allowed',
    });
    expect(done).toBe(false);
  });
  it('refuses ids of another library before anything is done', async () => {
    let done = false;
    const asked = change(stranger, { ...edit, names: { source: sourceId } }, async () => void (done = true));
    await expect(asked).rejects.toMatchObject({ code: 'not-here' });
    expect(done).toBe(false);
  });
  it('tells once, when it is kept, what changed; and nothing of what fails', async () => {
    const heard: LiveEvent[] = [];
    const stop = listen(mine.libraryId, (event) => heard.push(event));
    await change(mine, edit, (inner) =>
      change(inner, { right: 'edit', of: ['leads'] }, async () => undefined),
    );
    expect(heard).toEqual([{ kind: 'changed', of: ['leads', 'sources', 'notes'] }]);
    await change(mine, edit, () => Promise.reject(new Error('no'))).catch(() => undefined);
    expect(heard).toHaveLength(1);
    stop();
  });
});
