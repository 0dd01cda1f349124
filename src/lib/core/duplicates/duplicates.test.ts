import { describe, expect, it } from 'vitest';
import {
  alternativesOf,
  AND_OTHERS,
  originOf,
  sourceRecord,
  translationsOf,
  withTranslations,
  type SourceRecord,
} from '../source';
import { worksTwice } from '../../../../tests/doubles/works';
import {
  agreeing,
  commonnessOf,
  compare,
  findGroups,
  findPairs,
  groupsOf,
  judgePair,
  mergeAll,
  mergeEffect,
  mergeRecords,
  proposals,
  signatureOf,
  suggest,
  typedValue,
  withoutMerge,
  type Judgement,
  type Relation,
} from './index';

const record = (fields: Partial<SourceRecord>) =>
  sourceRecord.parse({
    type: 'article-journal',
    title: 'Salt marsh recovery behind breached dams',
    author: [{ family: 'Ferreira', given: 'Ana' }],
    issued: { 'date-parts': [[2021]] },
    ...fields,
  });
const judged = (a: Partial<SourceRecord>, b: Partial<SourceRecord>) => {
  const [there, back] = [compare(record(a), record(b)), compare(record(b), record(a))];
  expect(back).toEqual(there);
  return there;
};
const verdict = (a: Partial<SourceRecord>, b: Partial<SourceRecord>) => judged(a, b).verdict;
const inJournal = { 'container-title': 'Estuary and Shore', volume: '12', issue: '2', page: '101-117' };

describe('one work', () => {
  it('is known by a DOI in two spellings', () => {
    const j = judged(
      { DOI: '10.5555/marsh.3' },
      { DOI: 'https://doi.org/10.5555/MARSH.3', title: 'SALT MARSH RECOVERY BEHIND BREACHED DAMS' },
    );
    expect(j.verdict).toBe('sure');
    expect(j.reasons).toContain('same DOI');
  });
  it.each<[string, Partial<SourceRecord>]>([
    ['case', { title: 'SALT MARSH RECOVERY BEHIND BREACHED DAMS' }],
    ['markup', { title: 'Salt <i>marsh</i> recovery behind breached dams' }],
    ['a slip', { title: 'Salt marsh recovery behind braeched dams' }],
    ['order of words', { title: 'Behind breached dams: salt marsh recovery' }],
    ['a blank', { title: 'Saltmarsh recovery behind breached dams' }],
    ['initials', { author: [{ family: 'Ferreira', given: 'A.' }] }],
    ['one string', { author: [{ literal: 'Ana Ferreira' }] }],
    ['parts of the name swapped', { author: [{ family: 'Ana', given: 'Ferreira' }] }],
    ['a subtitle that is missing', { title: 'Salt marsh recovery behind breached dams: a survey of ponds' }],
    ['an abbreviated container', { 'container-title': 'Estuary Shore' }],
    ['the first page alone', { page: '101' }],
    ['a shortened range', { page: '101-17' }],
    ['the year of its first appearance online', { issued: { 'date-parts': [[2020]] } }],
    ['a type that says little', { type: 'webpage', 'container-title': 'Estuary and Shore' }],
  ])('is known in spite of %s', (_what, change) =>
    expect(verdict(inJournal, { ...inJournal, ...change })).toBe('sure'),
  );
  it.each<[string, Partial<SourceRecord>, Partial<SourceRecord>]>([
    [
      'umlauts written out',
      { title: 'Über Mühlen und Höfe', author: [{ family: 'Müller', given: 'Jörg' }] },
      { title: 'Ueber Muehlen und Hoefe', author: [{ family: 'Mueller', given: 'J.' }] },
    ],
    [
      'a romanised title and name',
      { title: 'Древние плотины и мельницы', author: [{ family: 'Щербаков', given: 'Юрий' }] },
      { title: 'Drevnie plotiny i melnitsy', author: [{ family: 'Shcherbakov', given: 'Iu.' }] },
    ],
    [
      'a translation in brackets',
      { title: 'Гавани и пошлины северного берега [Harbours and customs of the northern shore]' },
      { title: 'Harbours and customs of the northern shore' },
    ],
    [
      'an institution whose name is given in another order of words',
      { author: [{ literal: 'Institute for Tidal Research' }], title: 'Dredging along the northern coast' },
      { author: [{ literal: 'Tidal Research Institute' }], title: 'Dredging along the northern coast' },
    ],
  ])('is known across %s', (_what, a, b) => expect(verdict(a, b)).not.toBe('different'));
  it('may be asked about, where little is known', () => {
    const { author: _author, ...rest } = record({ issued: undefined });
    expect(compare(rest, record({})).verdict).toBe('decide');
  });
});

describe('weights', () => {
  const bits = (a: Partial<SourceRecord>, b: Partial<SourceRecord>) => {
    const { score } = judged(a, b);
    return Math.log2(score / (1 - score));
  };
  // Added up by hand from the weights as they stand in score.ts, as Fellegi and Sunter add up log2(m/u).
  it('are added up: title of six words 4 + 6 × 1.5, author 5 + rare name 1.5, year 2.5, before −8', () => {
    expect(bits({}, {})).toBeCloseTo(14, 6);
  });
  it('are added up: another serial −4; and other authors −8 in place of 6.5', () => {
    const [shore, letters] = [{ 'container-title': 'Shore' }, { 'container-title': 'Coastal letters' }];
    expect(bits(shore, letters)).toBeCloseTo(10, 6);
    expect(bits({}, { author: [{ family: 'Osei', given: 'Kofi' }] })).toBeCloseTo(14 - 6.5 - 8, 6);
  });
  it('are added up: serial 2, volume 2.5, issue 1.5, pages 5, and the place 2', () => {
    expect(bits(inJournal, inJournal)).toBeCloseTo(27, 6);
  });
  it('are less for a title and a name that many have', () => {
    const common = { titles: () => 64, families: () => 64 };
    const { score } = compare(record({}), record({}), common);
    // Title: 13 − 1.3 × (log2 32 − 0.5); name: (4 − log2 64) / 2.
    expect(Math.log2(score / (1 - score))).toBeCloseTo(13 - 1.3 * 4.5 + 5 - 1 + 2.5 - 8, 6);
  });
});

describe('two works', () => {
  it.each<[string, Partial<SourceRecord>, Partial<SourceRecord>]>([
    ['parts', { title: 'Tidal mills. Part 1' }, { title: 'Tidal mills. Part 2' }],
    [
      'a part and none',
      { title: 'The tidal mills of the northern coast' },
      { title: 'The tidal mills of the northern coast. Part II' },
    ],
    ['years in their titles', { title: 'Survey of mills 2018' }, { title: 'Survey of mills 2019' }],
    ['volumes', { type: 'book', volume: '1' }, { type: 'book', volume: '2' }],
    ['years', {}, { issued: { 'date-parts': [[2009]] } }],
    ['authors', {}, { author: [{ family: 'Osei', given: 'Kofi' }] }],
    [
      'a word',
      { title: 'Tide mills of the coast of Brittany' },
      { title: 'Tide mills of the coast of Galicia' },
    ],
    ['single letters', { title: 'The spread of hepatitis A' }, { title: 'The spread of hepatitis B' }],
    [
      'a reply',
      inJournal,
      {
        ...inJournal,
        title: 'Reply to “Salt marsh recovery behind breached dams”',
        author: [{ family: 'Osei' }],
        page: '118',
      },
    ],
  ])('are told by different %s', (_what, a, b) => expect(verdict(a, b)).toBe('different'));
  it('are asked about, where all but the pages agrees', () =>
    expect(verdict(inJournal, { ...inJournal, page: '7-24' })).toBe('decide'));
  it('are told by nothing but a title in common', () => {
    const notice = { title: 'Notice to mariners', author: undefined, issued: undefined };
    expect(verdict(notice, notice)).not.toBe('sure');
    expect(
      verdict({ ...notice, URL: 'https://a.example/1' }, { ...notice, URL: 'http://www.a.example/1/' }),
    ).toBe('sure');
  });
  it('are the chapters of a book that share its ISBN, and its DOI', () => {
    const [ISBN, DOI] = ['978-0-306-40615-7', '10.5555/book'];
    const chapter = (title: string, page: string) => ({ type: 'chapter' as const, ISBN, DOI, title, page });
    expect(verdict(chapter('Sluices', '1-20'), chapter('Tolls and dues', '21-44'))).toBe('different');
    expect(verdict({ type: 'book', ISBN }, { type: 'book', ISBN: '0306406152' })).toBe('sure');
  });
  it('are what shares the title of hundreds and says no more of itself', () => {
    const editorial = { title: 'Editorial', author: undefined, 'container-title': 'Shore', volume: '12' };
    const common = { titles: () => 400, families: () => 1 };
    expect(compare(record(editorial), record(editorial), common).verdict).toBe('different');
    const page = { ...editorial, page: '101-103' };
    expect(compare(record(page), record(page), common).verdict).not.toBe('different');
  });
});

describe('works that belong together', () => {
  const book = { type: 'book' as const, title: 'Mills of the Skerry Coast', publisher: 'Harbour Press' };
  it.each<[Relation, Partial<SourceRecord>, Partial<SourceRecord>]>([
    [
      'edition',
      { ...book, edition: '2' },
      { ...book, edition: '3rd ed.', issued: { 'date-parts': [[2024]] } },
    ],
    ['reprint', book, { ...book, issued: { 'date-parts': [[1984]] } }],
    [
      'preprint',
      { ...inJournal, DOI: '10.5555/a' },
      { type: 'article', genre: 'Preprint', DOI: '10.48550/arXiv.2104.01234' },
    ],
    [
      'part',
      { ...book },
      {
        type: 'chapter',
        title: 'Tolls',
        'container-title': 'Mills of the Skerry Coast',
        author: [{ family: 'Osei' }],
        editor: [{ family: 'Ferreira', given: 'Ana' }],
      },
    ],
    ['review', book, { title: 'Review of Mills of the Skerry Coast', author: [{ family: 'Osei' }] }],
    [
      'correction',
      inJournal,
      { ...inJournal, title: 'Erratum to: Salt marsh recovery behind breached dams', page: '300' },
    ],
    ['dataset', inJournal, { type: 'dataset', publisher: 'Open Data Store' }],
    [
      'translation',
      { ...book, language: 'en' },
      { ...book, language: 'de', translator: [{ family: 'Voß' }] },
    ],
  ])('%s', (relation, a, b) => expect(judged(a, b)).toMatchObject({ verdict: 'different', relation }));
});

describe('groups', () => {
  const pair = (a: string, b: string, verdict: Judgement['verdict'], score: number) => ({
    a,
    b,
    verdict,
    score,
    reasons: [`${a}${b}`],
  });
  const unlike = (): Judgement => ({ verdict: 'different', score: 0.01, reasons: [] });
  it('hold three captures of one work', () => {
    const found = groupsOf(
      [pair('a', 'b', 'sure', 0.99), pair('b', 'c', 'sure', 0.98), pair('a', 'c', 'decide', 0.8)],
      unlike,
    );
    expect(found).toEqual([expect.objectContaining({ ids: ['a', 'b', 'c'], verdict: 'sure', score: 0.8 })]);
  });
  it('do not grow by a chain of weak likeness', () => {
    const chain = ['ab', 'bc', 'cd', 'de'].map(([a, b]) => pair(a!, b!, 'decide', 0.7));
    for (const { ids } of groupsOf(chain, unlike)) expect(ids.length).toBeLessThan(3);
  });
  it('never hold two of which something tells that they are two', () => {
    const editions = (): Judgement => ({ verdict: 'different', score: 0, reasons: [], relation: 'edition' });
    const found = groupsOf([pair('a', 'b', 'sure', 0.99), pair('b', 'c', 'sure', 0.98)], editions);
    expect(found.map((g) => g.ids)).toEqual([['a', 'b']]);
  });
  it('do not depend on the order of the pairs, nor of the records', () => {
    const set = worksTwice(120, 5);
    const signatures = set.map((s) => signatureOf(s.record));
    const ids = set.map((s) => s.id);
    const whole = findGroups(ids, signatures);
    expect(whole.length).toBeGreaterThan(20);
    expect(findGroups([...ids].reverse(), [...signatures].reverse())).toEqual(whole);
    const { doubles } = findPairs(ids, signatures);
    const at = new Map(ids.map((id, i) => [id, signatures[i]!]));
    const common = commonnessOf(signatures);
    const judge = (a: string, b: string) => judgePair(at.get(a)!, at.get(b)!, common);
    const turned = [...doubles].reverse().map((p) => ({ ...p, a: p.b, b: p.a }));
    expect(groupsOf(turned, judge)).toEqual(whole);
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
  it('takes no pick of what is no field', () => {
    const merged = mergeAll([a, b], { constructor: 1 } as never, '2026-01-01T00:00:00Z');
    expect(sourceRecord.safeParse(merged).success).toBe(true);
    expect(alternativesOf(merged, 'constructor')).toEqual([]);
    expect(originOf(merged, 'constructor')).toBeUndefined();
  });
  it('of several takes a value of each, or one that was typed', () => {
    const c = record({ page: '7-24', publisher: 'Shore Press', DOI: '10.5555/marsh' });
    expect(proposals([a, b, c]).find((p) => p.field === 'publisher')).toEqual({
      field: 'publisher',
      from: 2,
      why: 'the only one',
      check: false,
    });
    const merged = mergeAll([a, b, c], { title: { value: 'Marshes' }, page: 0 }, '2026-01-01T00:00:00Z');
    expect(merged).toMatchObject({ title: 'Marshes', page: '7', DOI: '10.5555/marsh', volume: '3' });
    expect(alternativesOf(merged, 'title')).toHaveLength(2);
    const same = [record({ ISBN: '978-0-306-40615-7' }), record({ ISBN: '0306406152' })];
    expect(proposals(same)[0]).toMatchObject({ from: 0, why: 'the same, in thirteen digits', check: false });
  });
  it('knows what typed text stands for, by field', () => {
    expect(typedValue('author', 'Pell, Margaret; Osei, K.')).toEqual({
      value: [
        { family: 'Pell', given: 'Margaret' },
        { family: 'Osei', given: 'K.' },
      ],
    });
    expect(typedValue('issued', '12 May 1990')).toEqual({ value: { 'date-parts': [[1990, 5, 12]] } });
    expect(typedValue('volume', ' 3 ')).toEqual({ value: '3' });
    expect(typedValue('volume', '')).toEqual({ value: undefined });
    expect(typedValue('type', 'no such kind')).toBeUndefined();
  });
  it('is taken back without what was edited since', () => {
    const merged = mergeRecords(a, b, {}, '2026-01-01T00:00:00Z');
    const edited = { ...merged, volume: '4', retexa: { ...merged.retexa, tags: ['marsh', 'dams', 'new'] } };
    const { record: back, edited: fields } = withoutMerge(a, merged, edited);
    expect(fields).toEqual(['volume']);
    expect(back).toMatchObject({ ...a, volume: '4', retexa: { tags: ['marsh', 'new'] } });
    expect(alternativesOf(back, 'volume').map((s) => s.value)).toEqual(['3']);
  });
  it('has the titles of both in other languages, and gives back those of each', () => {
    const told = (language: string, text: string) => ({ of: 'title' as const, language, text });
    const [x, y] = [withTranslations(a, [told('en', 'Mills')]), withTranslations(b, [told('en', 'Tide mills'), told('fr', 'Moulins')])]; // prettier-ignore
    const merged = mergeRecords(x, y, {}, '2026-01-01T00:00:00Z');
    expect(translationsOf(merged).map((t) => t.text)).toEqual(['Mills', 'Moulins']);
    expect(translationsOf(withoutMerge(x, merged, merged).record)).toEqual(translationsOf(x));
    const edited = withTranslations(merged, [told('de', 'Mühlen')]);
    expect(translationsOf(withoutMerge(x, merged, edited).record).map((t) => t.text)).toEqual(['Mühlen']);
  });
});
