/** A query, held against going through the same records one by one. */
import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { largeLibrary } from '../../../../scripts/large-library';
import { yearsIn } from '../../core/query';
import { creatorsOf, nameText, yearOf, type SourceRecord } from '../../core/source';
import { proof } from '../../core/proof';
import { fold, plain } from '../../core/text';
import { transaction, type Context } from '../access/context';
import { fileSources, insertProject } from '../projects/repository';
import { keepPassage } from '../passages';
import { forgetQuery, savedCounts, savedQueries, saveQuery } from '../queries';
import { searchEverything } from '../search';
import { facetsOf, listIds, listSources, yearsOf } from '../sources';
import { insertSource } from '../sources/repository';
import { keepTestCopy, openTestLibrary } from '../test-library';

let db: Knex;
let ctx: Context;
const kept = new Map<string, SourceRecord>();
const look = { style: 'apa', locale: 'en-US' };
let projectId: string;

beforeAll(async () => {
  ({ db, ctx } = await openTestLibrary());
  await transaction(ctx, async (inner) => {
    let n = 0;
    for (const record of largeLibrary(300)) {
      const { id } = await insertSource(inner, record, { why: 'test', checked: n++ % 3 > 0 });
      kept.set(id, record);
    }
  });
  const ids = [...kept.keys()];
  for (const id of ids.slice(0, 5))
    await keepTestCopy(ctx, id, {
      text: 'The étang filled. 潮汐水車の歴史',
      address: `https://a.example/${id}`,
    });
  const project = await insertProject(ctx, { name: 'Estuary 50%', ...look });
  projectId = project.id;
  await fileSources(ctx, projectId, ids.slice(0, 20));
});
afterAll(() => db.destroy());

const found = async (text: string) => (await listIds(ctx, { text })).sort();
/** Ids of the records that pass a test, gone through one by one. */
const scan = (fits: (record: SourceRecord, id: string) => boolean) =>
  [...kept].flatMap(([id, record]) => (fits(record, id) ? [id] : [])).sort();

const people = (r: SourceRecord) =>
  creatorsOf(r)
    .flatMap((c) => c.names.map(nameText))
    .join(' ');
const all = (r: SourceRecord) =>
  [
    r.title,
    people(r),
    r['container-title'],
    r.publisher,
    r.abstract,
    r.note,
    r.DOI,
    r.ISBN,
    yearOf(r.issued),
    ...r.retexa.tags,
  ]
    .map((part) => plain(String(part ?? '')))
    .join(' ');
const begins = (text: string, word: string) =>
  fold(text)
    .split(' ')
    .some((w) => w.startsWith(fold(word)));
const inYears = (r: SourceRecord, years: string) => {
  const { from = -Infinity, to = Infinity } = yearsIn(years)!;
  const year = yearOf(r.issued);
  return year !== undefined && year >= from && year <= to;
};

describe('a query', () => {
  it.each<[query: string, fits: (record: SourceRecord, id: string) => boolean]>([
    ['mill', (r) => begins(all(r), 'mill')],
    ['mill pond', (r) => begins(all(r), 'mill') && begins(all(r), 'pond')],
    ['title:mill', (r) => begins(r.title ?? '', 'mill')],
    ['-title:mill', (r) => !begins(r.title ?? '', 'mill')],
    ['author:pell', (r) => begins(people(r), 'pell')],
    ['author:pell,ferreira', (r) => begins(people(r), 'pell') || begins(people(r), 'ferreira')],
    ['year:1950-1980', (r) => inYears(r, '1950-1980')],
    ['year:1990- type:book', (r) => inYears(r, '1990-') && r.type === 'book'],
    ['type:book -year:1990-', (r) => r.type === 'book' && !inYears(r, '1990-')],
    ['has:doi', (r) => r.DOI !== undefined],
    ['-has:date', (r) => yearOf(r.issued) === undefined],
    ['state:found', (r) => proof(r).length > 0],
    ['state:clean type:book', (r) => proof(r).length === 0 && r.type === 'book'],
    ['finding:title-capitals', (r) => proof(r).some((f) => f.check === 'title-capitals')],
    ['state:unchecked', (_, id) => [...kept.keys()].indexOf(id) % 3 === 0],
    ['has:page', (_, id) => [...kept.keys()].indexOf(id) < 5],
    ['in:estuary', (_, id) => [...kept.keys()].indexOf(id) < 20],
    [
      'in:"Estuary 50%" -has:copy',
      (_, id) => [...kept.keys()].indexOf(id) >= 5 && [...kept.keys()].indexOf(id) < 20,
    ],
    ['in:"Estuary 5_"', () => false],
    ['tag:nothing-is-called-so', () => false],
    ['year:soon', () => false],
  ])('%s finds what going through all finds', async (query, fits) => {
    const expected = scan(fits);
    expect(await found(query)).toEqual(expected);
  });

  it('finds tags however they are written, words in a row, and letters of scripts without blanks', async () => {
    const one = (fields: Partial<SourceRecord>) =>
      transaction(ctx, (inner) =>
        insertSource(
          inner,
          { type: 'book', ...fields, retexa: { origins: {}, tags: ['Salt marsh'], kept: {} } },
          { why: 'test' },
        ),
      );
    const { id } = await one({ title: 'Zwischen Marsch und Meer, 鰯雲の水門' });
    const { id: other } = await one({ title: 'Meer und Marsch zwischen den Kriegen' });
    expect(await found('tag:"salt MARSH"')).toEqual([id, other].sort());
    expect(await found('"marsch und meer"')).toEqual([id]);
    expect(await found('marsch meer')).toEqual([id, other].sort());
    expect(await found('雲の水')).toEqual([id]);
    expect(await found('の雲')).toEqual([]);
    expect(await found('marsch -鰯雲')).toEqual([other]);
  });

  it('puts what has the words in its title before what has them elsewhere', async () => {
    const add = (fields: Partial<SourceRecord>) =>
      transaction(ctx, (inner) =>
        insertSource(
          inner,
          { type: 'book', retexa: { origins: {}, tags: [], kept: {} }, ...fields },
          { why: 'test' },
        ),
      );
    const { id: last } = await add({ title: 'Aaa', abstract: 'Of quernstones.' });
    const { id: first } = await add({ title: 'Quernstones' });
    const { id: second } = await add({ title: 'Bbb', publisher: 'Quernstones Press' });
    const page = (sort: 'fit' | 'title', offset = 0) =>
      listSources(ctx, { text: 'quernstones' }, look, { from: { offset }, limit: 2, sort });
    expect((await page('fit')).items.map((i) => i.id)).toEqual([first, second]);
    expect((await page('fit', 2)).items.map((i) => i.id)).toEqual([last]);
    expect((await page('title')).items.map((i) => i.title)).toEqual(['Aaa', 'Bbb']);
    await expect(
      listSources(ctx, { text: 'quernstones' }, look, { from: { after: first }, limit: 2, sort: 'fit' }),
    ).rejects.toThrow('its place');
  });

  it('gives page after page of what fits best what one long page gives', async () => {
    const page = async (offset: number, limit: number) =>
      (await listSources(ctx, { text: 'mill' }, look, { from: { offset }, limit, sort: 'fit' })).items.map(
        (i) => i.id,
      );
    const whole = await page(0, 60);
    const paged: string[] = [];
    for (let offset = 0; offset < whole.length; offset += 7) paged.push(...(await page(offset, 7)));
    expect(whole.length).toBeGreaterThan(20);
    expect(paged.slice(0, whole.length)).toEqual(whole);
  });

  it.each<[string, string, { inProject?: boolean }]>([
    ['few', 'year:1950-1980 -type:book', {}],
    ['most', '-type:book', {}],
    ['all', '', {}],
    ['those of a project', '', { inProject: true }],
    ['some of a project', 'type:book,chapter', { inProject: true }],
  ])('is what counts and facets follow, of %s', async (_, text, { inProject = false }) => {
    const within = inProject ? { projectId } : {};
    const filter = { ...within, ...(text ? { text } : {}) };
    const ids = await listIds(ctx, filter);
    const { total } = await listSources(ctx, filter, look, { from: { offset: 0 }, limit: 1, sort: 'author' });
    const facets = await facetsOf(ctx, filter);
    const of = (field: string) => facets.find((f) => f.field === field)!.values;
    const sum = (field: string) => of(field).reduce((n, v) => n + v.n, 0);
    expect(total).toBe(ids.length);
    if (!text.startsWith('type')) expect(sum('type')).toBe(ids.length);
    if (text.includes('-type')) expect(of('type').some((t) => t.value === 'book')).toBe(false);
    expect(facets.filter(({ values }) => values.length).length).toBeGreaterThan(6);
    // Each is counted among what the rest of the query leaves; each of its values finds as many as it says.
    for (const { field, values } of facets)
      for (const { value, n } of values.slice(0, 4)) {
        const rest = text.replace(new RegExp(`(^| )${field}:\\S+`), '');
        const narrowed = await listIds(ctx, { ...within, text: `${rest} ${field}:"${value}"` });
        expect(narrowed, `${field}:${value}`).toHaveLength(n);
      }
    // Nothing is left of what they were laid out in.
    if (text || inProject) expect(await db('counted_among')).toEqual([]);
    expect(await yearsOf(ctx, filter)).toEqual(
      await yearsOf(ctx, { ...filter, text: text.replace('year:1950-1980 ', '') }),
    );
  });

  it('narrows passages, copies, notes and leads, too, says what cannot be asked, and offers near words', async () => {
    const search = (text: string) => searchEverything(ctx, text, look, {});
    expect((await search('etang')).copies.total).toBe(5);
    expect((await search('水車 in:estuary')).copies.total).toBe(5);
    expect((await search('etang in:nowhere')).copies.total).toBe(0);
    expect(await search('year:soon')).toMatchObject({ problems: [expect.stringContaining('is no year')] });
    expect((await search('etnag')).near).toBe('etang');
    expect((await search('etang')).near).toBeUndefined();
    // Whose a word is, the list of words does not say: one that others keep for themselves is not offered.
    await db('library').insert({ id: 'other', name: 'O', owner_id: ctx.personId, created: 'x' });
    await db('person').insert({ id: 'q', name: 'Q', created: 'x' });
    const [id] = [...kept.keys()];
    const own = await keepPassage(ctx, {
      kind: 'response', tint: 'claim', gist: 'zyxwvut', ownWords: '', locator: null, visibility: 'private', copyId: null, sourceId: id!, exact: '', selectors: null,
    }); // prettier-ignore
    await db('passage').where({ id: own.id }).update({ owner_id: 'q' });
    expect((await search('zyxwvtu')).near).toBeUndefined();
    const other: Context = { ...ctx, libraryId: 'other' };
    expect((await searchEverything(other, 'etnag', look, {})).near).toBeUndefined();
  });
});

describe('kept queries', () => {
  it('are kept as they are printed, counted as they find now, and let go of', async () => {
    const { id } = await saveQuery(ctx, { name: 'Old books', query: '  type:book   year:-1950 ' });
    expect(await savedQueries(ctx)).toEqual([{ id, name: 'Old books', query: 'type:book year:-1950' }]);
    const now = scan((r) => r.type === 'book' && inYears(r, '-1950')).length;
    expect(await savedCounts(ctx, undefined)).toEqual({ [id]: now });
    expect((await savedCounts(ctx, projectId))[id]).toBeLessThan(now);
    await expect(saveQuery(ctx, { name: 'old BOOKS', query: 'tide' })).rejects.toThrow('already');
    await expect(saveQuery(ctx, { name: 'Bad', query: 'year:soon' })).rejects.toThrow('not kept');
    expect(await forgetQuery(ctx, id)).toMatchObject({ name: 'Old books' });
    await expect(forgetQuery(ctx, id)).rejects.toThrow();
    expect(await savedQueries(ctx)).toEqual([]);
  });
});
