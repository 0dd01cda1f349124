import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord, type SourceRecord } from '../../core/source';
import { scoped, transaction, type Context } from '../access/context';
import { MIGRATIONS, migrationSource } from '../db/migrations';
import { keepFile } from '../files/store';
import { getKept } from '../history/kept';
import { leads } from '../leads/repository';
import { notes } from '../notes/repository';
import { presetWords } from '../../core/forms';
import { insertPreset } from '../presets/repository';
import { insertProject } from '../projects/repository';
import { listSections, placeSources, sectionNamed, sectionsOf } from '../projects/sections';
import { insertSource } from '../sources/repository';
import { doublesOf, keepAsCopy, keepNew, withPreset } from './keep';
import { Refusal } from '../access/refusal';
import { capture } from './index';
import type { Gathered, NewCopy } from './types';
import { merge, undoMerge } from '../duplicates';
import { knownPeople, knownValues } from '../sources/known';
import { binLeads, changeLead, keepLeads, leadByHand, listLeads, referencesIn } from '../leads';
import { insertCopy } from '../copies/repository';
import { binNote, editNote, keepNote, keepSpokenNote, listNotes } from '../notes';
import { binOf, countsOf } from '../overview';
import { undo } from '../sources';
import { openEarlier, openTestLibrary } from '../test-library';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const record = (fields: Partial<SourceRecord> = {}) =>
  sourceRecord.parse({
    type: 'article-journal',
    title: 'Open gates and salt marsh',
    author: [{ family: 'Ng', given: 'Tsz Ho' }],
    issued: { 'date-parts': [[2021]] },
    'container-title': 'Marsh Letters',
    DOI: '10.5555/ml.1',
    ...fields,
  });
const add = (fields: Partial<SourceRecord> = {}) =>
  transaction(ctx, (inner) => insertSource(inner, record(fields), { why: 'test' }));
const page = async (text: string): Promise<NewCopy> => ({
  kind: 'page',
  media_type: 'text/html',
  sha256: await keepFile(Buffer.from(text)),
  size: text.length,
  reading_sha256: await keepFile(Buffer.from(`<main><h1>T</h1><p>First.</p><p>${text}</p></main>`)),
  title: 'T',
  address: 'https://a.example/1',
  captured: '2026-03-03T00:00:00.000Z',
  text: `T\nFirst.\n${text}\n`,
  labels: null,
  note: null,
});
const gathered = async (fields: Partial<SourceRecord> = {}): Promise<Gathered> => ({
  record: record(fields),
  copies: [await page('Marsh  came back wherever gates stood open.')],
  notes: [],
});

describe('the schema', () => {
  it('goes forward from every earlier one, with what was in it', async () => {
    for (let upTo = 1; upTo <= MIGRATIONS.length; upTo++) {
      const old = await openEarlier(upTo);
      await old('person').insert({ id: 'p', name: 'You', created: 'x' });
      await old('library').insert({ id: 'l', name: 'L', owner_id: 'p', created: 'x' });
      await old('revision').insert({
        id: 'r',
        library_id: 'l',
        subject: 'source',
        subject_id: 's',
        number: 1,
        person_id: 'p',
        at: 'x',
        why: 'y',
        forward: '[]',
        backward: '[]',
      });
      await old.migrate.latest({ migrationSource });
      expect(await old('revision').first()).toMatchObject({ id: 'r', subject_id: 's', number: 1 });
      await expect(
        old('revision').insert({
          id: 'q',
          library_id: 'l',
          subject: 'source',
          subject_id: 's',
          number: 1,
          person_id: 'p',
          at: 'x',
          why: 'y',
          forward: '[]',
          backward: '[]',
        }),
      ).rejects.toThrow('UNIQUE');
      expect(await old.schema.hasTable('lead')).toBe(true);
      await old.destroy();
    }
  });
});

describe('keeping a capture', () => {
  it('puts project, section, tags, note and a located quotation with the source, or nothing at all', async () => {
    const project = await insertProject(ctx, { name: 'P', style: 'apa', locale: 'en-US' });
    const section = await sectionNamed(ctx, project.id, 'Ponds');
    const input = {
      text: 'x',
      projectId: project.id,
      sectionId: section.id,
      tags: ['marsh', 'marsh'],
      note: 'why',
      selection: 'came back\n wherever',
    };
    const kept = await keepNew(ctx, await gathered(), input);
    expect(kept.notes).toEqual(['The selection is kept as a quotation.']);
    expect(await sectionsOf(ctx, kept.sourceId)).toMatchObject([{ name: 'Ponds' }]);
    expect(await scoped(ctx, 'passage')).toMatchObject([
      { exact: 'came back wherever', anchor: 'found', locator: '{"label":"paragraph","value":"2"}' },
    ]);
    expect(await listNotes(ctx, { sourceId: kept.sourceId })).toMatchObject([
      { body: 'why', projectId: project.id },
    ]);
    expect(await db('source_tag')).toHaveLength(1);

    const broken = { ...(await gathered()), copies: [{ ...(await page('x')), kind: 'nonsense' as never }] };
    await expect(keepNew(ctx, broken, { text: 'y' })).rejects.toThrow();
    expect(await scoped(ctx, 'source')).toHaveLength(1);
  });
  it('says when the place of a selection is not found, and keeps the words', async () => {
    const kept = await keepNew(ctx, await gathered(), { text: 'x', selection: 'words that are not there' });
    expect(kept.notes[0]).toContain('not found');
    expect(await scoped(ctx, 'passage')).toMatchObject([
      { exact: 'words that are not there', copy_id: null, anchor: 'lost' },
    ]);
  });
  it('finds what is here already by DOI, ISBN and address, and adds a copy to it', async () => {
    const { id } = await add();
    const [double] = await doublesOf(
      ctx,
      record({ DOI: '10.5555/ML.1', title: 'OPEN GATES AND SALT MARSH' }),
    );
    expect(double).toMatchObject({ id, sure: true });
    expect(
      await doublesOf(
        ctx,
        record({ title: 'Another work', DOI: '10.5555/ml.2', author: [{ family: 'Sato' }] }),
      ),
    ).toEqual([]);
    const kept = await keepAsCopy(
      ctx,
      await gathered(),
      { text: 'x', tags: ['new'], selection: 'Marsh' },
      id,
    );
    expect(kept).toMatchObject({
      sourceId: id,
      notes: [expect.stringContaining('another copy'), expect.any(String)],
    });
    expect(await scoped(ctx, 'copy')).toHaveLength(1);
    expect(await scoped(ctx, 'source')).toHaveLength(1);
    // The very same file is not kept a second time.
    const page = await gathered();
    const file = { ...page, copies: page.copies.map((c) => ({ ...c, kind: 'pdf' as const })) };
    const again = await keepAsCopy(ctx, file, { text: 'x' }, id);
    expect(again.notes).toEqual(['This very document is kept with the source already.']);
    expect(again.added.copies).toEqual([]);
    expect(await scoped(ctx, 'copy')).toHaveLength(1);
  });
  it('fills a preset in where the capture says nothing, and says it did', async () => {
    const said = presetWords.parse({
      name: 'News',
      projectId: null,
      sectionId: null,
      type: 'article-newspaper',
      asked: ['title'],
      defaults: { 'publisher-place': 'Northsound', 'container-title': 'Ledger' },
      tags: ['news'],
      keepPage: true,
      keepPdf: false,
    });
    const id = await insertPreset(ctx, said);
    const kept = await keepNew(
      ctx,
      { ...(await gathered({ type: 'webpage', DOI: undefined })), copies: [] },
      { text: 'x', presetId: id },
    );
    const [row] = (await scoped(ctx, 'source').where({ id: kept.sourceId })) as { record: string }[];
    const made = JSON.parse(row!.record) as SourceRecord;
    expect(made).toMatchObject({
      type: 'article-newspaper',
      'publisher-place': 'Northsound',
      'container-title': 'Marsh Letters',
      retexa: { tags: ['news'] },
    });
    expect(made.retexa.origins['publisher-place']![0]).toMatchObject({
      kind: 'person',
      why: 'preset “News”',
    });
    expect(withPreset(record(), { ...said, id, asked: [] }).type).toBe('article-journal');
    expect(presetWords.safeParse({ ...said, defaults: { issued: '2020' } }).success).toBe(false);
  });
});

describe('what is no address and no identifier', () => {
  it.each([
    ['a thought about mills', 'is-text'],
    ['Sato, Y. (2020). Turbines in old wheelhouses. Small Hydropower Review, 9(2), 33–51.', 'is-reference'],
    ['@book{a, title={A book}, year=2001}', 'is-references'],
  ])('%s', async (text, code) => {
    const error = await capture(ctx, { text }).catch((e: unknown) => e);
    expect(error).toBeInstanceOf(Refusal);
    expect(error).toMatchObject({ code, status: 422, details: [] });
    expect(await scoped(ctx, 'job')).toEqual([]);
  });
});

describe('notes', () => {
  it('are kept, searched, edited on their revision, binned and brought back by undo', async () => {
    const note = await keepNote(ctx, {
      body: 'Ask Tessa about the 1904 survey',
      projectId: null,
      sourceId: null,
    });
    expect(await listNotes(ctx, { text: 'surv' })).toHaveLength(1);
    await editNote(ctx, note.id, 1, { body: 'Asked Tessa' });
    await expect(editNote(ctx, note.id, 1, { body: 'over it' })).rejects.toThrow('changed somewhere else');
    expect(await listNotes(ctx, { text: 'surv' })).toEqual([]);
    const { revisionId } = await binNote(ctx, note.id, true);
    expect(await listNotes(ctx, {})).toEqual([]);
    expect((await binOf(ctx)).notes).toMatchObject([{ text: 'Asked Tessa' }]);
    await undo(ctx, [revisionId!]);
    expect(await listNotes(ctx, {})).toMatchObject([{ body: 'Asked Tessa', revision: 4 }]);
    await expect(keepNote(ctx, { body: '  ', projectId: null, sourceId: null })).rejects.toThrow(
      'nothing written',
    );
  });
  it('are spoken: the recording is kept, what is no recording is refused', async () => {
    const bytes = Buffer.concat([Buffer.from('1a45dfa3', 'hex'), Buffer.alloc(40)]);
    const note = await keepSpokenNote(
      ctx,
      { bytes, mediaType: 'audio/webm', seconds: 3 },
      { body: '', projectId: null, sourceId: null },
    );
    expect((await getKept(ctx, notes, note.id)).audio).toMatchObject({ mediaType: 'audio/webm', seconds: 3 });
    await expect(
      keepSpokenNote(
        ctx,
        { bytes: Buffer.from('<html>'), mediaType: 'audio/webm', seconds: 1 },
        { body: '', projectId: null, sourceId: null },
      ),
    ).rejects.toThrow('no recording');
  });
});

describe('leads', () => {
  it('are cut from a list in its order, marked when they are here, ticked, binned, brought back', async () => {
    const { id } = await add({ title: 'Open gates and salt marsh', DOI: undefined });
    await keepLeads(ctx, {
      text: 'Ng, T. H. (2021). Open gates and salt marsh. Marsh Letters, 3(1), 7–24.\nthe pamphlet on the Skerry flood, 1954',
      projectId: null,
      metIn: id,
    });
    const [first, second] = await listLeads(ctx, {});
    expect(first).toMatchObject({ who: 'Ng, T. H.', year: '2021', here: { id }, metInLabel: 'Ng 2021' });
    expect(second).toMatchObject({ text: 'the pamphlet on the Skerry flood, 1954' });
    expect((await countsOf(ctx)).leads).toBe(2);
    const { revisionId } = await changeLead(ctx, first!.id, { act: 'tick', sourceId: id });
    expect((await listLeads(ctx, {})).at(-1)).toMatchObject({ foundLabel: 'Ng 2021' });
    await undo(ctx, [revisionId!]);
    expect((await countsOf(ctx)).leads).toBe(2);
    await changeLead(ctx, second!.id, { act: 'bin' });
    expect((await binOf(ctx)).leads).toHaveLength(1);
  });
  it('come of the list at the end of a document, those that are here and those that are leads known', async () => {
    const { id } = await add({ title: 'The article itself', DOI: undefined });
    const { id: there } = await add();
    const list = [
      'Ng, T. H. (2021). Open gates and salt marsh. Marsh Letters. https://doi.org/10.5555/ml.1',
      'Barrow, E. M. (1998). Grain and tide. Strand University Press.',
      'Pell, M. (2001). Ledgers of the shore. Mole Press.',
    ];
    const { id: copyId } = await transaction(ctx, async (inner) =>
      insertCopy(inner, {
        ...(await page('x')),
        source_id: id,
        text: `T\nFirst.\nReferences\n${list.join('\n')}\n`,
      }),
    );
    const first = await referencesIn(ctx, copyId);
    expect(first).toMatchObject({ heading: 'References', sourceId: id, cut: 0 });
    expect(first.references).toMatchObject([
      { text: list[0], here: { id: there }, lead: false },
      {
        text: list[1],
        who: 'Barrow, E. M.',
        year: '1998',
        title: 'Grain and tide',
        likely: true,
        lead: false,
      },
      { text: list[2] },
    ]);
    const kept = await keepLeads(ctx, { text: list.slice(1), projectId: null, metIn: id });
    expect((await listLeads(ctx, { metIn: id })).map((l) => l.text)).toEqual(list.slice(1));
    expect((await referencesIn(ctx, copyId)).references.map((r) => r.lead)).toEqual([false, true, true]);
    const revisions = await binLeads(ctx, kept.map((l) => l.id)); // prettier-ignore
    expect(await listLeads(ctx, { metIn: id })).toEqual([]);
    await undo(ctx, revisions);
    expect(await listLeads(ctx, { metIn: id })).toHaveLength(2);
    const { id: without } = await transaction(ctx, async (inner) =>
      insertCopy(inner, { ...(await page('y')), source_id: id }),
    );
    expect(await referencesIn(ctx, without)).toEqual({ sourceId: id, references: [], cut: 0 });
  });
  it('are looked for among the sources at once, however many they are', async () => {
    const asked = async (n: number) => {
      const text = Array.from(
        { length: n },
        (_, i) => `Ng, T. H. (2021). The salt marsh returns ${i}. Marsh Letters.`,
      );
      await keepLeads(ctx, { text: text.join('\n'), projectId: null, metIn: null });
      let queries = 0;
      const count = () => queries++;
      db.on('query', count);
      const items = await listLeads(ctx, {});
      db.removeListener('query', count);
      return { queries, here: items.filter((l) => l.here).length };
    };
    await add({ title: 'The salt marsh returns 3: Ten years on', DOI: undefined });
    const few = await asked(5);
    const many = await asked(60);
    expect(few.here).toBe(1);
    expect(many.queries).toBe(few.queries);
  });
  it('become a source by hand with what was read of them, and remember it', async () => {
    const [lead] = await keepLeads(ctx, {
      text: 'Barrow, E. M. (1998). Grain and tide. Strand University Press.',
      projectId: null,
      metIn: null,
    });
    const source = await leadByHand(ctx, lead!.id);
    expect(source.record).toMatchObject({
      type: 'book',
      title: 'Grain and tide',
      publisher: 'Strand University Press',
    });
    expect(source.record.retexa.origins.title![0]).toMatchObject({ kind: 'reference' });
    expect(await getKept(ctx, leads, lead!.id)).toMatchObject({ foundId: source.id, text: lead!.text });
  });
});

describe('merging', () => {
  it('takes notes, leads and placements over, and its undo brings them back exactly', async () => {
    const project = await insertProject(ctx, { name: 'P', style: 'apa', locale: 'en-US' });
    const section = await sectionNamed(ctx, project.id, 'Ponds');
    const [a, b] = [await add(), await add({ DOI: '10.5555/ML.1' })];
    await keepNote(ctx, { body: 'on b', projectId: null, sourceId: b.id });
    await keepLeads(ctx, { text: 'the pamphlet on the Skerry flood', projectId: null, metIn: b.id });
    for (const id of [a.id, b.id]) await placeSources(ctx, section.id, [id]);
    const state = async () => [
      await db('note').select('id', 'source_id'),
      await db('lead').select('id', 'met_in', 'found_id'),
      await db('placement').orderBy('position'),
    ];
    const before = await state();
    const id = await merge(ctx, { ids: [a.id, b.id], bases: [1, 1] });
    expect(await db('note').first()).toMatchObject({ source_id: a.id });
    expect(await db('lead').first()).toMatchObject({ met_in: a.id });
    expect(await db('placement')).toHaveLength(1);
    await undoMerge(ctx, id);
    expect(await state()).toEqual(before);
    expect(await listSections(ctx)).toHaveLength(1);
  });
});

describe('typing ahead', () => {
  it('offers containers by use and people by name', async () => {
    await add();
    await add({ title: 'Second', DOI: undefined, author: [{ family: 'Ó Súilleabháin', given: 'Cian' }] });
    await add({ title: 'Third', DOI: undefined, 'container-title': 'Small Hydropower Review' });
    expect(await knownValues(ctx, 'container-title', '')).toEqual([
      'Marsh Letters',
      'Small Hydropower Review',
    ]);
    expect(await knownValues(ctx, 'container-title', 'hydro')).toEqual(['Small Hydropower Review']);
    expect(await knownPeople(ctx, 'súil')).toEqual(['Ó Súilleabháin, Cian']);
    expect(await knownPeople(ctx, 'n')).toEqual([]);
  });
});
