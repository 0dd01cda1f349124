import { describe, expect, it } from 'vitest';
import { dateIn, namesIn, textIn, withParticles, type Item } from './item';

const item = (rest: object): Item => ({ id: 'a', type: 'book', ...rest });

describe('names', () => {
  // Common practice of records that know only family and given name.
  it.each([
    [{ family: 'van der Beek', given: 'Joost' }, { 'non-dropping-particle': 'van der', family: 'Beek', given: 'Joost' }],
    [{ family: 'Humboldt', given: 'Alexander von' }, { 'dropping-particle': 'von', family: 'Humboldt', given: 'Alexander' }],
    [{ family: 'd’Aubin', given: 'É.' }, { 'non-dropping-particle': 'd’', family: 'Aubin', given: 'É.' }],
    [{ family: 'King', given: 'M. L., Jr.' }, { family: 'King', given: 'M. L.', suffix: 'Jr.' }],
    [{ family: 'King', given: 'M. L., !III' }, { family: 'King', given: 'M. L.', suffix: 'III', 'comma-suffix': true }],
  ])('%j is taken apart', (name, parts) => expect(withParticles(name)).toEqual(parts)); // prettier-ignore
  it.each([
    { family: 'La Fontaine', given: 'Jean' },
    { literal: 'van der Beek and sons' },
    { family: 'de Gaulle', given: 'Charles', 'parse-names': 'false' },
  ])('%j stays', (name) => expect(withParticles(name)).toBe(name));
  it('without any text are none, and are read once', () => {
    const a = item({ author: [{ family: '' }, { family: 'Ng' }] });
    expect(namesIn(a, 'author')).toEqual([{ family: 'Ng' }]);
    expect(namesIn(a, 'author')).toBe(namesIn(a, 'author'));
    expect(namesIn(item({ author: 'Ng' }), 'author')).toEqual([]);
  });
});

describe('dates', () => {
  const read = (issued: unknown) => dateIn(item({ issued }), 'issued');
  it('are read from parts, as numbers or text, with seasons and ranges', () => {
    expect(read({ 'date-parts': [['2004', '6', '15']] })?.from).toEqual({ year: 2004, month: 6, day: 15 });
    expect(read({ 'date-parts': [[2000, '', '']] })?.from).toEqual({ year: 2000 });
    expect(read({ 'date-parts': [[2010, 22]] })?.from).toEqual({ year: 2010, season: 2 });
    expect(read({ 'date-parts': [[2010]], season: 3 })?.from).toEqual({ year: 2010, season: 3 });
    expect(read({ 'date-parts': [[1987], [2003]] })?.to).toEqual({ year: 2003 });
    expect(read({ 'date-parts': [[1987], [0]] })?.open).toBe(true);
    expect(read({ 'date-parts': [[1850]], circa: true })?.uncertain).toBe(true);
  });
  it('are read from a line, and are its words when they are none', () => {
    expect(read({ raw: '2004-10-01/2004-10-14' })).toMatchObject({ from: { day: 1 }, to: { day: 14 } });
    expect(read({ raw: 'Spring 1999 - Summer 2001' })).toMatchObject({
      from: { season: 1 },
      to: { season: 2 },
    });
    expect(read({ raw: '15 June 1999' })?.from).toEqual({ year: 1999, month: 6, day: 15 });
    expect(read({ raw: 'Bogus Date' })).toEqual({ literal: 'Bogus Date', uncertain: false });
    expect(read({ literal: 'in press' })?.literal).toBe('in press');
  });
  it('that tell nothing are none', () => {
    for (const nothing of [undefined, {}, { 'date-parts': [[]] }, { 'date-parts': [['']] }])
      expect(read(nothing)).toBeUndefined();
  });
});

describe('texts', () => {
  it('go by older names, and the first page is of the pages', () => {
    expect(textIn(item({ shortTitle: 'Mills' }), 'title-short')).toBe('Mills');
    expect(textIn(item({ 'event-title': 'Dam Day' }), 'event')).toBe('Dam Day');
    expect(textIn(item({ page: '12-17' }), 'page-first')).toBe('12');
    expect(textIn(item({ volume: 3 }), 'volume')).toBe('3');
  });
});
