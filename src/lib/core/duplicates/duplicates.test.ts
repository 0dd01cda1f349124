import { describe, expect, it } from 'vitest';
import { alternativesOf, AND_OTHERS, sourceRecord, type SourceRecord } from '../source';
import { agreeing, compare, keysOf, mergeEffect, mergeRecords, suggest } from './index';

const record = (fields: Partial<SourceRecord>) =>
  sourceRecord.parse({
    type: 'article-journal',
    title: 'Salt marsh recovery behind breached dams',
    author: [{ family: 'Ferreira', given: 'Ana' }],
    issued: { 'date-parts': [[2021]] },
    ...fields,
  });
const verdict = (a: Partial<SourceRecord>, b: Partial<SourceRecord>) => compare(record(a), record(b)).verdict;

describe('one work or two', () => {
  it('knows a DOI in two spellings', () => {
    const j = compare(
      record({ DOI: '10.5555/marsh.3' }),
      record({ DOI: 'https://doi.org/10.5555/MARSH.3', title: 'SALT MARSH RECOVERY BEHIND BREACHED DAMS' }),
    );
    expect(j.verdict).toBe('same');
    expect(j.reasons).toContain('same DOI in two spellings');
    expect(j.reasons).toContain('titles alike but for case');
  });
  it('suspects the same title, year and first author', () => {
    expect(
      verdict({}, { title: 'Salt Marsh Recovery: Behind Breached Dams', 'container-title': 'Repository' }),
    ).toBe('likely');
  });
  it.each([
    ['editions', { edition: '2' }, { edition: '3rd ed.' }],
    ['volumes', { volume: '1' }, { volume: '2' }],
    ['years', {}, { issued: { 'date-parts': [[2019]] } }],
    ['DOIs of preprint and version of record', { DOI: '10.5555/a' }, { DOI: '10.5555/b' }],
    ['first authors', {}, { author: [{ family: 'Osei' }] }],
    ['pages', { page: '7-24' }, { page: '101-110' }],
  ] as const)('keeps different %s apart', (_what, a, b) =>
    expect(verdict(a as never, b as never)).toBe('different'),
  );
  it('keeps notices with nothing but a title in common apart', () => {
    const notice = { title: 'Notice to mariners', author: undefined, issued: undefined };
    expect(verdict(notice, notice)).toBe('different');
    expect(
      verdict({ ...notice, URL: 'https://a.example/1' }, { ...notice, URL: 'http://www.a.example/1/' }),
    ).toBe('same');
  });
  it('does not take the chapters of a book, or the book, for one work', () => {
    const isbn = '978-0-306-40615-7';
    expect(
      verdict({ type: 'chapter', ISBN: isbn, title: 'One' }, { type: 'chapter', ISBN: isbn, title: 'Two' }),
    ).toBe('different');
    expect(verdict({ type: 'book', ISBN: isbn }, { type: 'book', ISBN: '0306406152' })).toBe('same');
  });
  it('is symmetric, and equal works share a key', () => {
    const a = record({ DOI: '10.5555/x' });
    const b = record({ title: 'Otherwise named', DOI: 'doi:10.5555/X' });
    expect(compare(a, b).verdict).toBe(compare(b, a).verdict);
    expect(keysOf(a).some((k) => keysOf(b).includes(k))).toBe(true);
  });
});

describe('merging', () => {
  const a = record({
    page: '7',
    volume: '3',
    retexa: { origins: {}, tags: ['marsh'], kept: { ris: { U1: 'x' } } },
  });
  const b = record({
    title: 'SALT MARSH RECOVERY BEHIND BREACHED DAMS',
    issued: { 'date-parts': [[2021, 11]] },
    page: '7-24',
    abstract: 'Ponds behind former mill dams.',
    author: [{ family: 'Ferreira', given: 'A.' }],
    retexa: { origins: {}, tags: ['dams'], kept: { ris: { U2: 'y' }, bibtex: { author: AND_OTHERS } } },
  });
  it('proposes with a reason and marks what to check', () => {
    const by = Object.fromEntries(suggest(a, b).map((s) => [s.field, s]));
    expect(by.title).toMatchObject({ side: 'a', why: 'not in capitals' });
    expect(by.issued).toMatchObject({ side: 'b', why: 'the fuller one' });
    expect(by.abstract).toMatchObject({ side: 'b', why: 'the only one' });
    expect(by.page).toMatchObject({ check: true });
    expect(by.author).toMatchObject({ side: 'a' });
    expect(agreeing(a, b)).toEqual(['type']);
  });
  it('says beforehand what it does to the first record, and does that', () => {
    const effect = mergeEffect(a, b);
    expect(effect).toEqual({
      adds: ['abstract'],
      replaces: ['issued', 'page'],
      keeps: ['title', 'author'],
      tags: ['dams'],
      kept: ['U2'],
    });
    const m = mergeRecords(a, b, {}, '2026-01-01T00:00:00Z');
    for (const field of [...effect.adds, ...effect.replaces]) expect(m[field]).toEqual(b[field]);
    for (const field of effect.keeps) expect(m[field]).toEqual(a[field]);
    expect(mergeEffect(a, a)).toEqual({ adds: [], replaces: [], keeps: [], tags: [], kept: [] });
  });
  it('follows the picks and loses no value, tag or kept field', () => {
    const m = mergeRecords(a, b, { page: 'a' }, '2026-01-01T00:00:00Z');
    expect(m).toMatchObject({ page: '7', volume: '3', issued: { 'date-parts': [[2021, 11]] } });
    expect(alternativesOf(m, 'page').map((s) => s.value)).toEqual(['7-24']);
    expect(alternativesOf(m, 'title')).toHaveLength(1);
    expect(m.retexa.tags).toEqual(['marsh', 'dams']);
    expect(m.retexa.kept.ris).toEqual({ U1: 'x', U2: 'y' });
    expect(sourceRecord.safeParse(m).success).toBe(true);
  });
});
