import { describe, expect, it } from 'vitest';
import ISBN from 'isbn3';
import {
  alternativesOf,
  askedFields,
  CSL_TYPES,
  dateText,
  derive,
  doiKey,
  findDoi,
  groupOf,
  isbnKey,
  isIssn,
  isOrcid,
  orcidText,
  makeCitekey,
  originOf,
  parseDate,
  parseName,
  parseNames,
  problemsOf,
  recognise,
  samePerson,
  shownFields,
  sourceRecord,
  dateProblem,
  firstIsbnKey,
  languageTag,
  shortName,
  typedDate,
  withEdit,
  addressKey,
  shortLabel,
  firstFields,
  otherFields,
  type SourceRecord,
  type Variable,
} from './index';

const record = (fields: Partial<SourceRecord>): SourceRecord =>
  sourceRecord.parse({ type: 'article-journal', ...fields });

describe('names', () => {
  it.each([
    ['Ferreira, Ana', { family: 'Ferreira', given: 'Ana' }],
    ['Ana Ferreira', { family: 'Ferreira', given: 'Ana' }],
    ['By Priya Raman', { family: 'Raman', given: 'Priya' }],
    ['van der Zee, Mieke', { 'non-dropping-particle': 'van der', family: 'Zee', given: 'Mieke' }],
    ['Mieke van der Zee', { 'non-dropping-particle': 'van der', family: 'Zee', given: 'Mieke' }],
    ['Tully, J. Q., Jr.', { family: 'Tully', given: 'J. Q.', suffix: 'Jr.' }],
    ['Tully, Jr.', { family: 'Tully', suffix: 'Jr.' }],
    ['Tully, V.', { family: 'Tully', given: 'V.' }],
    ['Tully, IV', { family: 'Tully', given: 'IV' }],
    ['Rahman, Md', { family: 'Rahman', given: 'Md' }],
    ['Tully, Jr., J. Q.', { family: 'Tully', given: 'J. Q.', suffix: 'Jr.' }],
    ['James Tully Jr.', { family: 'Tully', given: 'James', suffix: 'Jr.' }],
    ['Harbour Council', { literal: 'Harbour Council' }],
    ['Department of Tides, Northsound', { literal: 'Department of Tides, Northsound' }],
    ['Wulfstan', { family: 'Wulfstan' }],
    ['佐藤由紀', { family: '佐藤由紀' }],
    ['Ó Súilleabháin, Cian', { family: 'Ó Súilleabháin', given: 'Cian' }],
  ])('reads %s', (text, name) => expect(parseName(text)).toEqual(name));

  it('gives nothing for nothing', () => {
    expect(parseName('  ')).toBeUndefined();
    expect(parseName('***')).toBeUndefined();
  });
  it('splits several names in one string', () => {
    expect(parseNames('Ferreira, A.; Ng, T. H.')).toHaveLength(2);
    expect(parseNames('Ana Ferreira, Tsz Ho Ng and Cian Ó Súilleabháin').map((n) => n.given)).toEqual([
      'Ana',
      'Tsz Ho',
      'Cian',
    ]);
    expect(parseNames('Ferreira, Ana')).toEqual([{ family: 'Ferreira', given: 'Ana' }]);
    expect(parseNames('Ministry of Mills and Ponds')).toEqual([{ literal: 'Ministry of Mills and Ponds' }]);
  });
  it('knows initials of the same person', () => {
    expect(samePerson({ family: 'Ng', given: 'T. H.' }, { family: 'Ng', given: 'Tsz Ho' })).toBe(true);
    expect(samePerson({ family: 'Ng', given: 'Tsz' }, { family: 'Ng', given: 'Mei' })).toBe(false);
  });
});

describe('dates', () => {
  it.each([
    ['2021', [[2021]]],
    ['2021-11', [[2021, 11]]],
    ['2021/11/03', [[2021, 11, 3]]],
    ['2023-03-14T09:30:00Z', [[2023, 3, 14]]],
    ['March 14, 2023', [[2023, 3, 14]]],
    ['14th March 2023', [[2023, 3, 14]]],
    ['3. März 2020', [[2020, 3, 3]]],
    ['2 août 1999', [[1999, 8, 2]]],
    ['Nov 2021', [[2021, 11]]],
    ['1540/1610', [[1540], [1610]]],
    ['03/04/2021', [[2021]]],
    ['20210314', [[2021, 3, 14]]],
  ])('reads %s as far as it is known', (text, parts) =>
    expect(parseDate(text)?.['date-parts']).toEqual(parts),
  );
  // EDTF (ISO 8601-2) level 1: season 21 is spring, ~ is approximate.
  it('reads EDTF seasons and approximation and writes them back', () => {
    for (const text of ['1998-21', '1700~', '2004/2006', '-0043', '2021-11-30']) {
      const date = parseDate(text)!;
      expect(dateText(date)).toBe(text);
    }
    expect(parseDate('1998-21')).toEqual({ 'date-parts': [[1998]], season: 1 });
  });
  it('refuses impossible dates and invents none', () => {
    expect(parseDate('2021-13-01')?.['date-parts']?.[0]?.length ?? 0).toBeLessThanOrEqual(1);
    expect(parseDate('soon')).toBeUndefined();
    expect(typedDate('reign of Edward')).toEqual({ literal: 'reign of Edward' });
    expect(typedDate('')).toBeUndefined();
  });
  // Common practice of forms: a date is taken whole or refused aloud, never cut to a part of it.
  it.each([
    ['2023-13-01', 'There is no month 13'],
    ['2023-02-30', 'Month 2 has no day 30'],
    ['20231301', 'There is no month 13'],
    ['12/3/2020', 'Which is the day, and which the month?'],
    ['31 April 2021', 'April has no day 31'],
    ['2021-11-03', undefined],
    ['3 November 2021', undefined],
    ['2004-06/2006', undefined],
    ['c. 1700', undefined],
    ['reign of Edward', undefined],
  ])('%s is taken whole, or refused in words', (text, problem) => {
    if (problem === undefined) return expect(dateProblem(text)).toBeUndefined();
    expect(dateProblem(text)).toContain(problem);
    expect(typedDate(text)).toEqual({ literal: text });
  });
});

describe('languages', () => {
  // ISO 639-2 codes, bibliographic and terminological, and CLDR's names.
  it.each([
    ['fin', 'fi'],
    ['kor', 'ko'],
    ['Finnish', 'fi'],
    ['suomi', 'fi'],
    ['ger', 'de'],
    ['deu', 'de'],
    ['en_GB', 'en-GB'],
    ['zh-Hant-TW', 'zh-Hant-TW'],
    ['grc', 'grc'],
    ['français', 'fr'],
    ['qqz', ''],
    ['none of them', ''],
  ])('%s is %s', (text, tag) => expect(languageTag(text)).toBe(tag));
});

describe('identifiers', () => {
  it('finds the first ISBN of a field that holds several', () => {
    expect(firstIsbnKey('978-1-86197-271-2 (pbk), 978-3-16-148410-0 (hbk)')).toBe('9781861972712');
    expect(firstIsbnKey('no ISBN 12')).toBeUndefined();
  });
  it('calls a creator of a given name alone by it', () => {
    expect(shortName({ given: 'Sequoyah' })).toBe('Sequoyah');
  });
  it('finds a DOI in addresses and sentences', () => {
    expect(findDoi('https://doi.org/10.5555/jceh.44.e112.')).toBe('10.5555/jceh.44.e112');
    expect(findDoi('(see doi:10.5555/abc(2020)1).')).toBe('10.5555/abc(2020)1');
    expect(findDoi('https://x.example/?doi=10.5555%2Fabc')).toBe('10.5555/abc');
    expect(findDoi('10.5555')).toBeUndefined();
    expect(doiKey('10.5555/ABC')).toBe('10.5555/abc');
  });
  it('agrees with isbn3 on ISBNs', () => {
    for (const isbn of [
      '978-0-306-40615-7',
      '0-306-40615-2',
      '9780306406158',
      '0306406153',
      '978-1-4028-9462-6',
    ]) {
      const outside = ISBN.parse(isbn);
      expect(isbnKey(isbn) ?? null).toBe(outside?.isbn13 ?? null);
    }
  });
  // ISO 3297 worked example: 0317-8471. Wrong last digit refused.
  it('checks ISSNs', () => {
    // The identifiers of ORCID’s own description of how they are made.
    for (const one of ['0000-0002-1825-0097', '0000-0001-5109-3700', '0000-0002-1694-233X'])
      expect(isOrcid(one)).toBe(true);
    expect(isOrcid('0000-0002-1825-0098')).toBe(false);
    expect(orcidText(' https://orcid.org/000000021694233x ')).toBe('0000-0002-1694-233X');
    expect(orcidText('0000-0002-1694-2339')).toBeUndefined();
    expect(isIssn('0317-8471')).toBe(true);
    expect(isIssn('0317-8472')).toBe(false);
    expect(isIssn('1050-124X')).toBe(true);
  });
  it('compares addresses without what does not matter', () => {
    expect(addressKey('https://www.a.example/x/?utm_source=z#top')).toBe(addressKey('http://a.example/x'));
    expect(addressKey('not one')).toBeUndefined();
  });
  it('recognises what is pasted', () => {
    expect(recognise(' doi:10.5555/jceh.44.e112 ')).toEqual({ kind: 'doi', doi: '10.5555/jceh.44.e112' });
    expect(recognise('https://doi.org/10.5555/x.1').kind).toBe('doi');
    expect(recognise('https://marsh.example/10.5555/x.1').kind).toBe('address');
    expect(recognise('marsh.example/articles/7')).toEqual({
      kind: 'address',
      address: 'https://marsh.example/articles/7',
    });
    expect(recognise('978-0-306-40615-7').kind).toBe('isbn');
    expect(recognise('a thought about mills').kind).toBe('text');
    expect(recognise('javascript://alert(1)').kind).toBe('text');
  });
});

describe('the record', () => {
  it('refuses unknown fields and says which', () => {
    const bad = sourceRecord.safeParse({ type: 'book', titel: 'x', issued: { 'date-parts': [[2020, 13]] } });
    expect(bad.success).toBe(false);
    const words = problemsOf(bad.error!).join('\n');
    expect(words).toContain('titel');
    expect(words).toContain('issued');
  });
  it('asks every type for something, and shows a value the type does not ask for', () => {
    for (const type of CSL_TYPES) expect(askedFields(type)).toContain('title');
    const r = record({ type: 'webpage', volume: '3' });
    expect(shownFields(r)).toContain('volume');
    expect(otherFields(r)).not.toContain('volume');
  });
  it('are at first those that hold a value, and those both the type and the style ask', () => {
    const book = sourceRecord.parse({ type: 'book', title: 'T', author: [{ family: 'Ng' }], note: 'n' });
    const style: Variable[] = ['author', 'issued', 'title', 'editor', 'edition', 'publisher'];
    expect(firstFields(book, style)).toEqual(['author', 'issued', 'title', 'edition', 'publisher', 'note']);
    expect(firstFields({ ...book, author: undefined }, style)).toContain('editor');
    expect(firstFields({ ...book, type: 'chapter' }, style)).toContain('editor');
    expect(firstFields(book, [])).toEqual(shownFields(book));
    expect(groupOf('volume')).toBe('Where it appeared');
  });
  it('derives the same columns from the same record', () => {
    const r = record({
      title: 'Salt Marsh <i>Recovery</i>',
      author: [{ family: 'Ó Súilleabháin', given: 'Cian' }],
      issued: { 'date-parts': [[2021, 11]] },
      DOI: 'https://doi.org/10.5555/MARSH.3',
    });
    expect(derive(r)).toMatchObject({
      titleKey: 'salt marsh recovery',
      creatorKey: 'o suilleabhain',
      year: 2021,
      doi: '10.5555/marsh.3',
    });
    expect(shortLabel(r)).toBe('Ó Súilleabháin 2021');
  });
  it('makes citekeys that are free', () => {
    const r = record({ title: 'The Salt', author: [{ family: 'Ng' }], issued: { 'date-parts': [[2021]] } });
    const taken = new Set(['ng2021salt', 'ng2021salta']);
    expect(makeCitekey(r, (k) => taken.has(k))).toBe('ng2021saltb');
  });
});

describe('origins', () => {
  const at = '2026-03-03T00:00:00Z';
  const r = record({
    title: 'Grain',
    retexa: {
      origins: {
        title: [
          { kind: 'registry', value: 'Grain', at },
          { kind: 'html', value: 'GRAIN | Site', at },
        ],
      },
      tags: [],
      kept: {},
    },
  });
  it('knows where the current value came from and what else was seen', () => {
    expect(originOf(r, 'title')?.kind).toBe('registry');
    expect(alternativesOf(r, 'title').map((s) => s.value)).toEqual(['GRAIN | Site']);
  });
  it('notes a typed value and keeps the one it replaced', () => {
    const edited = withEdit(r, { title: 'Grain, toll and tide', volume: '4' }, at);
    expect(originOf(edited, 'title')?.kind).toBe('person');
    expect(alternativesOf(edited, 'title')).toHaveLength(2);
    const cleared = withEdit(edited, { volume: '' }, at);
    expect('volume' in cleared).toBe(false);
    expect(cleared.retexa.origins.volume).toHaveLength(1);
  });
  it('takes a name that every object has for a field like any other, which the schema refuses', () => {
    for (const name of ['constructor', 'toString', 'hasOwnProperty']) {
      const edited = withEdit(record({ title: 'Weirs' }), { [name]: 'x' }, 'now');
      expect(sourceRecord.safeParse(edited).success).toBe(false);
    }
  });
});
