import { stat } from 'node:fs/promises';
import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { describe as locate } from '../../core/passages';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { keepFile, placeOf } from '../files/store';
import { fileSources, insertProject } from '../projects/repository';
import { listProjects, setAside } from '../projects';
import { insertPreset } from '../presets/repository';
import { insertSection, listSections, placeSources, sectionNamed } from '../projects/sections';
import { insertSource } from '../sources/repository';
import { sweepLeaving } from '../files/leaving';
import { deleteForGood } from './index';
import { keepApart, merge } from '../duplicates';
import { keepLeads } from '../leads';
import { binNote, keepNote, keepSpokenNote } from '../notes';
import { keepPassage } from '../passages';
import { binOf, countsOf } from '../overview';
import { binSources } from '../sources';
import { keepTestCopy, openTestLibrary } from '../test-library';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const add = (title: string) =>
  transaction(ctx, (inner) =>
    insertSource(inner, sourceRecord.parse({ type: 'book', title, author: [{ family: 'Ng' }] }), {
      why: 'test',
    }),
  );
const copyFor = async (sourceId: string, bytes: string) => {
  const sha256 = await keepFile(Buffer.from(bytes));
  return keepTestCopy(ctx, sourceId, { sha256, reading_sha256: sha256, text: bytes });
};
const quote = (copyId: string, text: string) =>
  keepPassage(ctx, {
    kind: 'quotation',
    tint: 'claim',
    gist: '',
    ownWords: '',
    locator: null,
    visibility: 'library',
    copyId,
    selectors: locate(text, 0, 8),
  });
const isKept = (sha256: string) =>
  stat(placeOf(sha256)).then(
    () => true,
    () => false,
  );
/** Every row anywhere that has an id in it, as `table: n`. */
async function traces(id: string): Promise<string[]> {
  const found: string[] = [];
  const tables = (await db.raw(
    "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' AND name NOT LIKE 'knex%' AND name NOT LIKE 'search_%' OR name = 'search_subject'",
  )) as { name: string }[];
  for (const { name } of tables) {
    const rows = (await db(name)) as object[];
    if (rows.some((r) => JSON.stringify(r).includes(id))) found.push(name);
  }
  return found;
}

describe('deleting for good', () => {
  it('takes a source with all that hangs on it and nothing else; notes and leads stay, on nothing', async () => {
    const text = 'Tides turned the wheel.';
    const { id } = await add('Tide mills');
    const double = await add('Tide mills');
    const other = await add('Windmills');
    const copy = await copyFor(id, text);
    const passage = await quote(copy.id, text);
    const project = await insertProject(ctx, { name: 'P', style: 'apa', locale: 'en-US' });
    await fileSources(ctx, project.id, [id, other.id]);
    await placeSources(ctx, (await sectionNamed(ctx, project.id, 'Ponds')).id, [id]);
    await keepApart(ctx, id, [other.id]);
    const note = await keepNote(ctx, { body: 'mine', sourceId: id, projectId: null });
    const [lead] = await keepLeads(ctx, { text: 'Costa, I. Etangs. 1999.', projectId: null, metIn: id });
    await merge(ctx, { ids: [id, double.id], bases: [1, 1] });
    await binSources(ctx, [id], true);

    await deleteForGood(ctx, 'sources', [id]);
    expect([await traces(id), await traces(double.id), await traces(copy.id), await traces(passage.id)]).toEqual([
      [], [], [], [],
    ]); // prettier-ignore
    expect(await db('note').where({ id: note.id }).first()).toMatchObject({ body: 'mine', source_id: null });
    expect(await db('lead').where({ id: lead!.id }).first()).toMatchObject({ met_in: null });
    expect(await traces(other.id)).toContain('filing');
    expect(await db.raw('PRAGMA foreign_key_check')).toEqual([]);
    expect(((await db('search')) as { body: string }[]).map((r) => r.body).join()).not.toContain('wheel');
  });

  it('refuses what is not in the bin, and deletes nothing then', async () => {
    const [a, b] = [await add('A'), await add('B')];
    await binSources(ctx, [a.id], true);
    await expect(deleteForGood(ctx, 'sources', [a.id, b.id])).rejects.toMatchObject({ status: 409 });
    expect((await binOf(ctx)).sources).toHaveLength(1);
    const note = await keepNote(ctx, { body: 'x', sourceId: null, projectId: null });
    await expect(deleteForGood(ctx, 'notes', [note.id])).rejects.toMatchObject({ status: 409 });
    await db('library').insert({ id: 'other', name: 'O', owner_id: ctx.personId, created: 'x' });
    await expect(deleteForGood({ ...ctx, libraryId: 'other' }, 'sources', [a.id])).rejects.toMatchObject({
      status: 409,
    });
    await binNote(ctx, note.id, true);
    await deleteForGood(ctx, 'notes', [note.id]);
    expect(await traces(note.id)).toEqual([]);
  });

  it('takes a project with its sections; its sources, notes and leads stay', async () => {
    const project = await insertProject(ctx, { name: 'P', style: 'apa', locale: 'en-US' });
    const source = await add('Tide mills');
    await fileSources(ctx, project.id, [source.id]);
    const ponds = await sectionNamed(ctx, project.id, 'Ponds');
    await placeSources(ctx, ponds.id, [source.id]);
    await insertSection(ctx, { projectId: project.id, parentId: ponds.id, name: 'Gates' });
    const preset = await insertPreset(ctx, {
      name: 'Into ponds', projectId: project.id, sectionId: ponds.id, type: null, asked: [], defaults: {}, tags: [], keepPage: false, keepPdf: false,
    }); // prettier-ignore
    const note = await keepNote(ctx, { body: 'mine', sourceId: null, projectId: project.id });
    await setAside(ctx, project.id, { putAway: true });
    expect(await listProjects(ctx)).toMatchObject([{ name: 'P', putAway: expect.any(String) as string }]);
    await setAside(ctx, project.id, { binned: true });
    expect(await listProjects(ctx)).toEqual([]);
    expect(await listSections(ctx)).toEqual([]);
    expect((await binOf(ctx)).projects).toMatchObject([{ name: 'P', sources: 1 }]);
    expect((await countsOf(ctx)).bin).toBe(1);
    await setAside(ctx, project.id, { binned: false });
    expect((await countsOf(ctx, project.id)).sources).toBe(1);
    await expect(deleteForGood(ctx, 'projects', [project.id])).rejects.toMatchObject({ status: 409 });
    await setAside(ctx, project.id, { binned: true });
    await deleteForGood(ctx, 'projects', [project.id]);
    expect(await db('preset').where({ id: preset }).first('project_id', 'section_id')).toEqual({
      project_id: null,
      section_id: null,
    });
    expect(await traces(project.id)).toEqual([]);
    expect(await db('note').where({ id: note.id }).first()).toMatchObject({ body: 'mine', project_id: null });
    expect(await db('source').where({ id: source.id }).first()).toBeDefined();
    expect(await db.raw('PRAGMA foreign_key_check')).toEqual([]);
    expect((await countsOf(ctx)).bin).toBe(0);
  });

  it('lets files go at the next start, but not those that something else has', async () => {
    const [a, b] = [await add('A'), await add('B')];
    const mine = await copyFor(a.id, 'only mine');
    const shared = await copyFor(a.id, 'shared by two');
    await copyFor(b.id, 'shared by two');
    const waiting = await keepFile(Buffer.from('of a capture that waits'));
    await copyFor(a.id, 'of a capture that waits');
    await db('job').insert({
      id: 'j', library_id: ctx.libraryId, person_id: ctx.personId, kind: 'capture', state: 'waiting',
      input: JSON.stringify({ file: waiting }), created: 'x', updated: 'x',
    }); // prettier-ignore
    await binSources(ctx, [a.id], true);
    await deleteForGood(ctx, 'sources', [a.id]);
    expect(await isKept(mine.sha256)).toBe(true);
    expect(await sweepLeaving(db)).toBe(1);
    expect([await isKept(mine.sha256), await isKept(shared.sha256), await isKept(waiting)]).toEqual([
      false,
      true,
      true,
    ]);
    expect(await db('leaving_file')).toEqual([]);
    const spoken = await keepSpokenNote(
      ctx,
      { bytes: Buffer.from('OggS, and then what was said'), mediaType: 'audio/ogg', seconds: 1 },
      { body: '', sourceId: null, projectId: null },
    );
    await binNote(ctx, spoken.id, true);
    await deleteForGood(ctx, 'notes', [spoken.id]);
    expect(await sweepLeaving(db)).toBe(1);
  });
});
