import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addedIn,
  filtersAsQuery,
  nearestWord,
  parseQuery,
  partsSought,
  printQuery,
  problemsIn,
  QUERY_FIELDS,
  searchForm,
  toggled,
  typesNamed,
  withField,
  asking,
  wordsSought,
  yearsIn,
  type Query,
  type QueryField,
  type Term,
} from './index';

describe('a query', () => {
  it('is words, words in a row, fields of one or several values, and what must not be', () => {
    expect(
      parseQuery('tide "salt marsh" -dam author:pell,"van der Zee" -tag:news year:1990-2005').terms,
    ).toEqual([
      { kind: 'words', words: 'tide', phrase: false, not: false },
      { kind: 'words', words: 'salt marsh', phrase: true, not: false },
      { kind: 'words', words: 'dam', phrase: false, not: true },
      { kind: 'field', field: 'author', values: ['pell', 'van der Zee'], not: false },
      { kind: 'field', field: 'tag', values: ['news'], not: true },
      { kind: 'field', field: 'year', values: ['1990-2005'], not: false },
    ]);
  });
  it.each([
    ['an address', 'https://a.example/x', ['https://a.example/x']],
    ['a field nobody knows', 'colour:blue', ['colour:blue']],
    ['a hyphen within a word', 'half-open', ['half-open']],
    ['a field without a value', 'author: pell', ['author:', 'pell']],
    ['quotation marks that stay open', '"salt marsh', ['salt marsh']],
    ['marks alone', ' - , "" –', []],
  ])('takes %s as words', (_, text, words) => {
    expect(parseQuery(text).terms.map((t) => t.kind === 'words' && t.words)).toEqual(words);
  });

  const value = fc
    .string({ unit: fc.constantFrom(...'abcÉ潮é-:.19 ,'), minLength: 1, maxLength: 12 })
    .map((t) => t.replace(/\s+/g, ' ').trim())
    .filter(Boolean);
  const term: fc.Arbitrary<Term> = fc.oneof(
    fc.record({
      kind: fc.constant('words' as const),
      words: fc.string({ unit: fc.constantFrom(...'abé潮19'), minLength: 1, maxLength: 8 }),
      phrase: fc.boolean(),
      not: fc.boolean(),
    }),
    fc.record({
      kind: fc.constant('field' as const),
      field: fc.constantFrom(...(Object.keys(QUERY_FIELDS) as QueryField[])),
      values: fc.uniqueArray(value, { minLength: 1, maxLength: 3 }),
      not: fc.boolean(),
    }),
  );
  it('is printed as what is parsed to the same', () => {
    fc.assert(
      fc.property(fc.array(term, { maxLength: 6 }), (terms) => {
        const query: Query = { terms };
        expect(parseQuery(printQuery(query))).toEqual(query);
      }),
    );
  });
  it('is any text, and what that is printed as is parsed to the same', () => {
    const written = fc.oneof(
      fc.string({ maxLength: 60 }),
      fc.string({ unit: fc.constantFrom(...'ab"-:, ', 'tag:', 'year:'), maxLength: 30 }),
    );
    fc.assert(
      fc.property(written, (text) => {
        const query = parseQuery(text);
        expect(parseQuery(printQuery(query))).toEqual(query);
      }),
    );
  });

  it('says what of it cannot be asked', () => {
    expect(problemsIn(parseQuery('tide year:1990 has:pdf type:book state:unchecked added:2026-11'))).toEqual(
      [],
    );
    expect(
      problemsIn(parseQuery('year:soon has:legs state:red type:novelty added:monday reading:soon')),
    ).toEqual([
      'year:soon is no year. Write year:1990-2005.',
      'has:legs: has can be pdf, page, copy, passages, notes, tasks, doi, isbn, date, tags.',
      'state:red: state can be checked, unchecked, found, clean.',
      'type:novelty is no kind of source.',
      'added:monday is no date. Write added:2026-11.',
      'reading:soon: reading can be to-read, reading, read, aside, none.',
    ]);
  });
  it.each([
    ['2026', { from: '2026', to: '2026' }],
    ['2026-11-02..2026-11-08', { from: '2026-11-02', to: '2026-11-08' }],
    ['monday', undefined],
    ['2026-11..', undefined],
  ])('takes %s for a time', (value, times) => {
    expect(addedIn(value)).toEqual(times);
  });
  it('asks for a value more, or no longer', () => {
    const by = (query: string, value: string) => printQuery(toggled(parseQuery(query), 'tag', value));
    expect(by('tide -tag:news', 'salt marsh')).toBe('tide -tag:news tag:"salt marsh"');
    expect(by('tag:silt tide', 'news')).toBe('tide tag:silt,news');
    expect(by('tag:silt,News tide', 'news')).toBe('tide tag:silt');
    expect(by('tag:silt', 'silt')).toBe('');
  });
  it('is what the controls of a view narrow by', () => {
    const filters = { q: 'tide', type: 'book', tag: 'salt marsh', state: 'intake', from: '1990', to: '2005' };
    expect(filtersAsQuery(filters)).toBe('tide type:book tag:"salt marsh" state:unchecked year:1990-2005');
    expect(filtersAsQuery({ from: '1990', to: '1990', sort: 'title' })).toBe('year:1990');
    expect(filtersAsQuery({ to: '2005', state: 'findings' })).toBe('state:found year:-2005');
    expect(filtersAsQuery({})).toBe('');
  });
  it('has a field set or taken away', () => {
    const query = parseQuery('tide tag:a -tag:b');
    expect(asking(['tag', ['salt marsh', 'silt']], ['type', ['book']])).toBe(
      'tag:"salt marsh",silt type:book',
    );
    expect(printQuery(withField(query, 'tag', ['salt marsh']))).toBe('tide -tag:b tag:"salt marsh"');
    expect(printQuery(withField(query, 'tag', []))).toBe('tide -tag:b');
    expect(wordsSought(parseQuery('tide -dam "salt marsh" tag:a'))).toBe('tide salt marsh');
  });
  it.each([
    ['1990', { from: 1990, to: 1990 }],
    ['1990-2005', { from: 1990, to: 2005 }],
    ['1990-', { from: 1990 }],
    ['-2005', { to: 2005 }],
    ['1990..2005', { from: 1990, to: 2005 }],
    ['soon', undefined],
    ['-', undefined],
  ])('reads %s as years', (text, years) => expect(yearsIn(text)).toEqual(years));
  it('names kinds by what they are called, or as CSL has them', () => {
    expect(typesNamed('book')).toEqual(['book']);
    expect(typesNamed('article-journal')).toEqual(['article-journal']);
    expect(typesNamed('blog')).toEqual(['post-weblog']);
    expect(typesNamed('')).toEqual([]);
  });
});

describe('words that are looked for', () => {
  it('are folded, and letters of scripts without blanks stand by themselves', () => {
    expect(searchForm('Étang-de-Berre')).toBe('etang de berre');
    expect(searchForm('潮汐水車の歴史 2nd')).toBe('潮 汐 水 車 の 歴 史 2nd');
    expect(partsSought('tide 水車')).toEqual([
      { inRow: ['tide'], begins: true },
      { inRow: ['水', '車'], begins: false },
    ]);
  });
  it('are near what the library knows, a third of the letters apart at most', () => {
    const known = ['sediment', 'sentiment', 'estuary', 'marsh'];
    expect(nearestWord('sedimant', known)).toBe('sediment');
    expect(nearestWord('setuary', known)).toBe('estuary');
    expect(nearestWord('marhs', known)).toBe('marsh');
    expect(nearestWord('windmill', known)).toBeUndefined();
  });
});
