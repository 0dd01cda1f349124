import { Refusal } from '../access/refusal';
import { createHash } from 'node:crypto';
import { readdirSync, writeFileSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord, type SourceRecord } from '../../core/source';
import { describe as locate } from '../../core/passages';
import { defaultContext, scoped, transaction, type Context } from '../access/context';
import { listen, tell, tellJob } from '../access/events';
import { keepFile, readKept, sweepParts } from '../files/store';
import { isPublicAddress, targetOf } from '../http/addresses';
import { fileSources, insertProject, updateProject } from '../projects/repository';
import { keepOwnStyle, takeOutOwnStyle } from '../lists/repository';
import { styleOf } from '../lists/catalogue';
import { columnsOf } from './derived';
import { getSource, getSources, insertSource, updateSource } from './repository';
import { groupsInOrder } from '../duplicates/groups';
import { compareGroup, keepApart, merge, undoMerge } from '../duplicates';
import { keepNote } from '../notes';
import { keepPassage } from '../passages';
import {
  binSources,
  editSource,
  editSources,
  facetsOf,
  historyOf,
  linesOf,
  listSources,
  previewChange,
  restoreField,
  restoreRevision,
  listIds,
  someOfEachKind,
  undo,
  yearsOf,
} from './index';
import { countsOf } from '../overview';
import { keepTestCopy, openTestLibrary } from '../test-library';
import { textOfBytes } from '../../reading/text';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const record = (fields: Partial<SourceRecord> = {}) =>
  sourceRecord.parse({
    type: 'book',
    title: 'Tide mills',
    author: [{ family: 'Ó Súilleabháin', given: 'Cian' }],
    issued: { 'date-parts': [[2001]] },
    publisher: 'P',
    ...fields,
  });
const add = (fields: Partial<SourceRecord> = {}) =>
  transaction(ctx, (inner) => insertSource(inner, record(fields), { why: 'test' }));
const look = { style: 'apa', locale: 'en-US' };
const list = (filter = {}) =>
  listSources(ctx, filter, look, { from: { offset: 0 }, limit: 50, sort: 'author' });

describe('the ground', () => {
  it('has one default person and library, made once', async () => {
    const again = await defaultContext(db);
    expect(again).toEqual(ctx);
    expect(await db('membership')).toMatchObject([{ role: 'owner' }]);
  });
  it('reads nothing outside its library', async () => {
    await add();
    await db('library').insert({ id: 'other', name: 'Other', owner_id: ctx.personId, created: 'x' });
    const stranger = { ...ctx, libraryId: 'other' };
    expect(
      (await listSources(stranger, {}, look, { from: { offset: 0 }, limit: 9, sort: 'author' })).total,
    ).toBe(0);
    const [row] = (await scoped(ctx, 'source')) as { id: string }[];
    await expect(getSource(stranger, row!.id)).rejects.toThrow('not in the library');
  });
  it('gives some of each kind as examples, the kinds most have first', async () => {
    for (const title of ['C', 'A', 'B', 'D']) await add({ type: 'report', title, author: undefined });
    const { id: binned } = await add({ type: 'report', title: 'AA', author: undefined });
    await binSources(ctx, [binned], true);
    await add({ type: 'book', title: 'E' });
    const some = await someOfEachKind(ctx, undefined, 3);
    expect(some.map(({ record }) => [record.type, record.title])).toEqual([
      ['report', 'A'],
      ['report', 'B'],
      ['report', 'C'],
      ['book', 'E'],
    ]);
    expect(await someOfEachKind(ctx, 'no-project', 3)).toEqual([]);
  });
  it('derives the same columns again from the records alone', async () => {
    const { id } = await add({ DOI: '10.5555/X' });
    const [row] = (await scoped(ctx, 'source').where({ id })) as Record<string, unknown>[];
    expect(row).toMatchObject(columnsOf(JSON.parse(String(row!.record)) as SourceRecord));
  });
});

describe('pages that are open', () => {
  const heard: string[] = [];
  let stop: () => void;
  beforeEach(() => {
    heard.length = 0;
    stop = listen(ctx.libraryId, (event) => heard.push(event.kind));
  });
  afterEach(() => stop());
  const changed = () => tell(ctx.libraryId, 'sources');

  it('are told once that something changed, when it is kept, and of progress at once', async () => {
    await transaction(ctx, async (inner) => {
      changed();
      tellJob(ctx.libraryId, { id: 'j', kind: 'import', state: 'running' });
      await transaction(inner, () => Promise.resolve(changed()));
      expect(heard).toEqual(['job']);
    });
    expect(heard).toEqual(['job', 'changed']);
  });
  it('are told nothing of what was not kept', async () => {
    await expect(
      transaction(ctx, () => {
        changed();
        return Promise.reject(new Error('no'));
      }),
    ).rejects.toThrow('no');
    expect(heard).toEqual([]);
    changed();
    expect(heard).toEqual(['changed']);
  });
  it('are told by what the work left running, too', async () => {
    let later = Promise.resolve();
    let release = () => {};
    const released = new Promise<void>((resolve) => (release = resolve));
    await transaction(ctx, () => {
      later = released.then(changed);
      return Promise.resolve();
    });
    expect(heard).toEqual([]);
    release();
    await later;
    expect(heard).toEqual(['changed']);
  });
});

describe('revisions', () => {
  it('note every edit, refuse a stale one, and bring any state back', async () => {
    const { id } = await add();
    await editSource(ctx, id, 1, { fields: { volume: '2' } });
    await editSource(ctx, id, 2, { fields: { title: 'Tide mills and ponds', volume: null } });
    await expect(editSource(ctx, id, 2, { fields: { volume: '9' } })).rejects.toMatchObject({ status: 409 });
    expect((await getSource(ctx, id)).record.volume).toBeUndefined();
    await restoreRevision(ctx, id, 2);
    const back = await getSource(ctx, id);
    expect(back.record).toMatchObject({ title: 'Tide mills', volume: '2' });
    expect(back.revision).toBe(4);
    expect((await historyOf(ctx, id)).map((h) => h.number)).toEqual([4, 3, 2, 1]);
  });
  it('are told with what was and what is', async () => {
    const { id } = await add({ publisher: 'Harbour Press' });
    await editSource(ctx, id, 1, { fields: { publisher: 'Foreshore Press', volume: '2' } });
    const [latest] = await historyOf(ctx, id);
    expect(latest!.fields).toEqual(
      expect.arrayContaining([
        { field: 'publisher', was: 'Harbour Press', is: 'Foreshore Press' },
        { field: 'volume', was: '', is: '2' },
      ]),
    );
  });
  it('tell the whole of a value of which a part changed, and by whom; one value is brought back alone', async () => {
    const { id } = await add({ title: 'Tide mills' });
    const author = [{ family: 'Ó Súilleabháin', given: 'Ciarán' }];
    await editSource(ctx, id, 1, { fields: { author, title: 'Sea mills' } });
    await editSource(ctx, id, 2, { fields: { volume: '2' } });
    const [, second] = await historyOf(ctx, id);
    expect(second).toMatchObject({ number: 2, who: 'You' });
    expect(second!.fields).toEqual(
      expect.arrayContaining([
        { field: 'author', was: 'Ó Súilleabháin, Cian', is: 'Ó Súilleabháin, Ciarán' },
        { field: 'title', was: 'Tide mills', is: 'Sea mills' },
      ]),
    );
    const { revisionId } = await restoreField(ctx, id, 2, 'title');
    expect((await getSource(ctx, id)).record).toMatchObject({ title: 'Tide mills', author, volume: '2' });
    expect(await restoreField(ctx, id, 2, 'title')).toEqual({});
    await undo(ctx, [revisionId!]);
    expect((await getSource(ctx, id)).record.title).toBe('Sea mills');
    // A field may be named as what every object has; a record has none of that name.
    for (const name of ['__proto__', 'constructor', 'tides'])
      await expect(
        restoreField(ctx, id, 2, name).catch((error: unknown) => {
          if (!(error instanceof Refusal)) throw error;
          return {};
        }),
      ).resolves.toEqual({});
    await restoreField(ctx, id, 3, 'volume');
    expect((await getSource(ctx, id)).record.volume).toBeUndefined();
  });
  it('are undone only while they are the latest', async () => {
    const { id } = await add();
    const first = await editSource(ctx, id, 1, { fields: { volume: '2' } });
    await editSource(ctx, id, 2, { fields: { volume: '3' } });
    await expect(undo(ctx, [first.revisionId!])).rejects.toMatchObject({ status: 409 });
    expect((await getSource(ctx, id)).record.volume).toBe('3');
  });
  it('change nothing when an edit is refused, and name the field', async () => {
    const { id } = await add();
    await expect(editSource(ctx, id, 1, { fields: { nonsense: 'x' } })).rejects.toMatchObject({
      status: 422,
      details: [expect.stringContaining('nonsense')],
    });
    await expect(
      editSource(ctx, id, 1, { fields: { issued: { 'date-parts': [[2020, 13]] } } }),
    ).rejects.toMatchObject({ details: [expect.stringContaining('issued')] });
    expect((await getSource(ctx, id)).revision).toBe(1);
  });
  it('leave no trace of a transaction that fails', async () => {
    await expect(
      transaction(ctx, async (inner) => {
        await insertSource(inner, record(), { why: 'x' });
        throw new Error('power cut');
      }),
    ).rejects.toThrow('power cut');
    expect(await db('source')).toEqual([]);
    expect(await db('revision')).toEqual([]);
    expect(await db('search')).toEqual([]);
  });
  it('give a key that is free even when the one asked for and the one made instead are taken', async () => {
    const made = await add();
    const keyed = () =>
      transaction(ctx, (inner) => insertSource(inner, record(), { citekey: 'asked', why: 'test' }));
    expect((await keyed()).citekey).toBe('asked');
    expect((await keyed()).citekey).toBe(`${made.citekey}a`);
  });
  it('give citekeys that nobody has or had', async () => {
    const a = await add();
    const b = await add();
    expect([a.citekey, b.citekey]).toEqual(['osuilleabhain2001tide', 'osuilleabhain2001tidea']);
    await expect(editSource(ctx, b.id, 1, { fields: {}, citekey: a.citekey })).rejects.toMatchObject({
      status: 422,
    });
  });
});

describe('lists', () => {
  it('search without regard to case, marks and punctuation, and within a project', async () => {
    const a = await add();
    await add({ title: 'Windmills', author: [{ family: 'Brandt' }] });
    const project = await insertProject(ctx, { name: 'P', ...look });
    await fileSources(ctx, project.id, [a.id]);
    expect((await list({ text: 'O SUILLEABHAIN' })).total).toBe(1);
    expect((await list({ text: 'mill' })).total).toBe(1);
    expect((await list({ text: '"; DROP TABLE source' })).total).toBe(0);
    expect((await list({ projectId: project.id })).total).toBe(1);
    expect((await countsOf(ctx, project.id)).sources).toBe(1);
    expect((await list({ text: 'year:2002-' })).total).toBe(0);
  });
  it('leave out what is in the bin, and have it again when it is back', async () => {
    const { id } = await add();
    await binSources(ctx, [id], true);
    expect((await list()).total).toBe(0);
    expect(await db('search')).toEqual([]);
    await binSources(ctx, [id], false);
    expect((await list({ text: 'tide' })).total).toBe(1);
  });
  it('offer types, years and tags', async () => {
    const { id } = await add();
    await editSource(ctx, id, 1, { fields: {}, tags: ['marsh', 'marsh', ' '] });
    expect(await yearsOf(ctx, { text: 'year:1990' })).toEqual([{ year: 2001, n: 1 }]);
    const facets = await facetsOf(ctx, {});
    expect(facets.filter((f) => ['type', 'tag'].includes(f.field))).toEqual([
      { field: 'type', values: [{ value: 'book', n: 1 }] },
      { field: 'tag', values: [{ value: 'marsh', n: 1 }] },
    ]);
    expect((await list({ tag: 'marsh' })).items[0]).toMatchObject({ letter: 'O', tags: ['marsh'] });
  });
});

const copyFor = (sourceId: string, text: string) => keepTestCopy(ctx, sourceId, { text });
const said = {
  kind: 'quotation' as const,
  tint: 'claim' as const,
  gist: '',
  ownWords: '',
  locator: null,
  visibility: 'library' as const,
};

describe('passages', () => {
  it('are kept only where the copy has their words', async () => {
    const { id } = await add();
    const text = 'Within six years of a breach.';
    const copy = await copyFor(id, text);
    const passage = await keepPassage(ctx, { ...said, copyId: copy.id, selectors: locate(text, 7, 16) });
    expect(passage).toMatchObject({ exact: 'six years', anchor: 'found' });
    const moved = { ...locate(text, 7, 16), position: { start: 0, end: 9 } };
    expect(
      (await keepPassage(ctx, { ...said, copyId: copy.id, selectors: moved })).selectors?.position,
    ).toEqual({ start: 7, end: 16 });
    await expect(
      keepPassage(ctx, { ...said, copyId: copy.id, selectors: locate('other words', 0, 5) }),
    ).rejects.toMatchObject({ status: 422 });
  });
});

describe('duplicates', () => {
  it('merge and undo give every row back, and the mark “kept apart” survives both', async () => {
    const [a, b, c] = [
      await add({ DOI: '10.5555/a' }),
      await add({ DOI: 'https://doi.org/10.5555/A', volume: '2' }),
      await add({ DOI: '10.5555/A' }),
    ];
    const text = 'Some text here.';
    const copy = await copyFor(b.id, text);
    await keepPassage(ctx, { ...said, copyId: copy.id, selectors: locate(text, 0, 4) });
    const project = await insertProject(ctx, { name: 'P', ...look });
    await fileSources(ctx, project.id, [b.id]);
    await keepApart(ctx, b.id, [c.id]);
    const tables = ['passage', 'copy', 'filing', 'alias', 'apart'];
    const snapshot = async () =>
      Object.fromEntries(
        await Promise.all(tables.map(async (t) => [t, await db(t).select().orderBy(1)] as const)),
      );
    const before = await snapshot();
    const records = [(await getSource(ctx, a.id)).record, (await getSource(ctx, b.id)).record];
    const { proposals } = await compareGroup(ctx, [a.id, b.id]);
    expect(proposals.map((p) => p.field)).toContain('volume');
    const id = await merge(ctx, { ids: [a.id, b.id], bases: [1, 1] });
    expect((await getSource(ctx, a.id)).record.volume).toBe('2');
    expect(await db('passage').where({ source_id: a.id })).toHaveLength(1);
    expect(await groupsInOrder(ctx, { limit: 100 })).toEqual([]);
    await undoMerge(ctx, id);
    expect(await snapshot()).toEqual(before);
    expect([(await getSource(ctx, a.id)).record, (await getSource(ctx, b.id)).record]).toEqual(records);
    expect(await db.raw('PRAGMA foreign_key_check')).toEqual([]);
    await expect(undoMerge(ctx, id)).rejects.toMatchObject({ status: 409 });
  });
  it('refuses a merge chosen on an older state', async () => {
    const [a, b] = [await add(), await add()];
    await updateSource(ctx, a.id, 1, { checked: 'x' }, 'checked');
    await expect(merge(ctx, { ids: [a.id, b.id], bases: [1, 1] })).rejects.toMatchObject({ status: 409 });
  });
});

describe('files', () => {
  it('are kept whole under their checksum, once, and leftovers are swept', async () => {
    const bytes = new TextEncoder().encode('a page');
    const sha = await keepFile(bytes);
    expect(sha).toBe(createHash('sha256').update(bytes).digest('hex'));
    expect(await keepFile(bytes)).toBe(sha);
    expect((await readKept(sha)).toString()).toBe('a page');
    const folder = join(process.env.RETEXA_DATA!, 'files', 'ab');
    mkdirSync(folder, { recursive: true });
    writeFileSync(join(folder, 'ab12.xyz.part'), 'half');
    expect(await sweepParts()).toBe(1);
    expect(readdirSync(folder)).toEqual([]);
    expect(() => readKept('../../../etc/passwd')).toThrow(RangeError);
  });
  it('are read in the encoding they are in', () => {
    expect(textOfBytes(new TextEncoder().encode('Ó'))).toBe('Ó');
    expect(textOfBytes(new Uint8Array([0xd3]))).toBe('Ó');
    expect(textOfBytes(new Uint8Array([0xff, 0xfe, 0xd3, 0x00]))).toBe('Ó');
  });
});

describe('styles', () => {
  it('of one’s own stay while a project prints in them', async () => {
    const facts = { format: 'author-date' as const, hasList: true, fields: [] };
    const style = await keepOwnStyle(ctx, { title: 'House', sha256: 'a'.repeat(64), facts });
    const project = await insertProject(ctx, { name: 'Paper', style: style.id, locale: 'en-US' });
    await expect(takeOutOwnStyle(ctx, style.id)).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('Paper') as string,
    });
    expect((await styleOf(ctx, style.id)).title).toBe('House');
    // Another library has no such style.
    await expect(styleOf({ ...ctx, libraryId: 'other' }, style.id)).rejects.toThrow('no style');
    await updateProject(ctx, project.id, { style: 'apa' });
    await takeOutOwnStyle(ctx, style.id);
    await expect(styleOf(ctx, style.id)).rejects.toThrow('no style');
  });
});

describe('addresses', () => {
  it.each([
    '127.0.0.1',
    '10.1.2.3',
    '172.16.0.1',
    '192.168.0.1',
    '169.254.169.254',
    '0.0.0.0',
    '100.64.0.1',
    '::1',
    'fe80::1',
    'fd00::1',
    '::ffff:127.0.0.1',
    '::ffff:10.0.0.1',
    '224.0.0.1',
    'not an address',
  ])('%s is not public', (ip) => expect(isPublicAddress(ip)).toBe(false));
  it('knows public ones', () => {
    expect(isPublicAddress('93.184.215.14')).toBe(true);
    expect(isPublicAddress('2606:2800:220:1::1')).toBe(true);
  });
  it.each([
    'http://127.0.0.1/',
    'http://2130706433/',
    'http://0x7f.1/',
    'http://[::ffff:127.0.0.1]/',
    'http://localhost/',
    'http://printer.local/',
  ])('refuses %s however it is spelt', async (address) => {
    await expect(targetOf(new URL(address))).rejects.toThrow(/private network/);
  });
  it('sends only the hosts named to the stand-ins', async () => {
    process.env.RETEXA_ALLOW_HOSTS = '*.example=127.0.0.1:5999';
    expect(await targetOf(new URL('https://a.b.example/x'))).toEqual({
      ip: '127.0.0.1',
      family: 4,
      port: 5999,
      standIn: true,
    });
    await expect(targetOf(new URL('http://example.localhost/'))).rejects.toThrow();
    delete process.env.RETEXA_ALLOW_HOSTS;
  });
});

describe('several sources', () => {
  it('have one field changed, all or none, and as one thing to take back', async () => {
    const [a, b, c] = [
      await add({ publisher: 'Mole Pr.' }),
      await add({ title: 'Windmills', publisher: 'MOLE PR.' }),
      await add({ title: 'Watermills', publisher: 'Sluice' }),
    ].map((s) => s.id) as [string, string, string];
    const change = {
      act: 'replace',
      field: 'publisher',
      find: 'mole pr.',
      by: 'Mole Press',
      exact: false,
    } as const;
    const preview = await previewChange(ctx, [a, b, c], change);
    expect(preview).toMatchObject({ total: 2, changes: [a, b] });
    expect(preview.shown[1]).toMatchObject({ was: 'MOLE PR.', is: 'Mole Press' });
    const { revisions } = await editSources(ctx, [a, b, c], { change });
    expect(revisions).toHaveLength(2);
    const publishers = async () => (await getSources(ctx, [a, b, c])).map((s) => s.record.publisher).sort();
    expect(await publishers()).toEqual(['Mole Press', 'Mole Press', 'Sluice']);
    expect((await historyOf(ctx, b))[0]!.why).toBe('words replaced in: publisher');
    await undo(ctx, revisions);
    expect(await publishers()).toEqual(['MOLE PR.', 'Mole Pr.', 'Sluice']);
    // One that cannot have it refuses them all, and is named.
    await expect(
      editSources(ctx, [a, c], { change: { act: 'set', field: 'nonsense', value: 'x' } }),
    ).rejects.toMatchObject({ details: [expect.stringMatching(/^Ó Súilleabháin 2001: /)] });
    expect(await publishers()).toEqual(['MOLE PR.', 'Mole Pr.', 'Sluice']);
  });
  it('are marked as checked, those that are not; their addresses and notes are lines', async () => {
    const a = await add({ URL: 'https://a.example/x' });
    const b = await add({ title: 'Windmills', DOI: '10.5555/w' });
    const { revisions } = await editSources(ctx, [a.id, b.id], { checked: true });
    expect(revisions).toHaveLength(2);
    expect((await editSources(ctx, [a.id, b.id], { checked: true })).revisions).toEqual([]);
    await keepNote(ctx, { body: 'Ask Ravi', sourceId: a.id, projectId: null });
    expect((await linesOf(ctx, [b.id, a.id], 'addresses')).map((l) => l.text)).toEqual([
      'https://doi.org/10.5555/w',
      'https://a.example/x',
    ]);
    expect((await linesOf(ctx, [a.id], 'titles with notes'))[0]!.text).toBe(
      'Ó Súilleabháin 2001. Tide mills\nAsk Ravi',
    );
  });
});

describe('titles in other languages', () => {
  it('are kept beside the record, found by their words, and not written over', async () => {
    const english = { of: 'title', language: 'en', text: 'Tide mills' } as const;
    const { id } = await add({ title: 'Gezeitenmühlen' });
    const { source } = await editSource(ctx, id, 1, { fields: {}, translations: [english] });
    expect(source.record.custom).toEqual({ translations: [english] });
    expect(await listIds(ctx, { text: 'tide mills' })).toEqual([id]);
    await expect(editSource(ctx, id, 1, { fields: {}, translations: [] })).rejects.toMatchObject({ details: ['translations: changed meanwhile'] });
  }); // prettier-ignore
});

describe('how far a source can be trusted', () => {
  it('is said answer by answer, by two who answer different questions too; the same one is asked about', async () => {
    const { id } = await add({ title: 'One' });
    const { source: first } = await editSource(ctx, id, 1, { fields: {}, credibility: { behind: 'A league', trust: 'fully' } });
    await editSource(ctx, id, first.revision, { fields: {}, credibility: { why: 'so it says' } });
    // Somebody else still sees the first answer.
    await editSource(ctx, id, first.revision, { fields: {}, credibility: { trust: 'with care' } });
    expect((await getSource(ctx, id)).record.retexa.credibility).toEqual({ behind: 'A league', trust: 'with care', why: 'so it says' });
    await expect(editSource(ctx, id, first.revision, { fields: {}, credibility: { trust: 'not at all' } })).rejects.toMatchObject({ details: ['credibility: changed meanwhile'] });
    // Taken back one by one, the last of them leaves nothing.
    const { source } = await editSource(ctx, id, 4, { fields: {}, credibility: { behind: undefined, trust: undefined } });
    await editSource(ctx, id, source.revision, { fields: {}, credibility: { why: undefined } });
    expect((await getSource(ctx, id)).record.retexa).not.toHaveProperty('credibility');
  }); // prettier-ignore
});
