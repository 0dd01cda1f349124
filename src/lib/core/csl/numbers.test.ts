import { describe, expect, it } from 'vitest';
import { openLocale } from './locale';
import { inForm, isNumeric, isSeveral, numberText, pageRanges, roman } from './numbers';
import type { Tree } from './tree';

const term = (name: string, text: string, attrs: Record<string, string> = {}): Tree => ({
  name: 'term',
  attrs: { name, ...attrs },
  children: [text],
});
const english = openLocale(
  [{ name: 'locale', attrs: {}, children: [term('ordinal', 'th'), term('ordinal-01', 'st'), term('ordinal-02', 'nd'), term('ordinal-03', 'rd'), term('ordinal-11', 'th'), term('ordinal-12', 'th'), term('ordinal-13', 'th'), term('long-ordinal-01', 'first')] }],
  'en-US',
); // prettier-ignore
/** French of the CSL locales: the first is another word, by gender. */
const french = openLocale(
  [{ name: 'locale', attrs: {}, children: [term('ordinal', 'e'), term('ordinal-01', 're', { 'gender-form': 'feminine', match: 'whole-number' }), term('ordinal-01', 'er', { 'gender-form': 'masculine', match: 'whole-number' })] }],
  'fr-FR',
); // prettier-ignore

describe('a number in a form', () => {
  // CSL 1.0.2, "Ordinal Suffixes": -01 stands for every number that ends in 1 but for those that end in 11.
  it.each([
    [1, '1st'], [2, '2nd'], [3, '3rd'], [4, '4th'], [11, '11th'], [12, '12th'], [13, '13th'], [21, '21st'], [101, '101st'], [111, '111th'], [1002, '1002nd'],
  ])('%d is %s', (number, text) => expect(inForm(number, 'ordinal', english)).toBe(text)); // prettier-ignore
  it('takes the gender of what it counts, and a match of the whole number', () => {
    expect(inForm(1, 'ordinal', french, 'feminine')).toBe('1re');
    expect(inForm(1, 'ordinal', french, 'masculine')).toBe('1er');
    expect(inForm(21, 'ordinal', french, 'masculine')).toBe('21e');
  });
  it('is a word where the language has one', () => {
    expect(inForm(1, 'long-ordinal', english)).toBe('first');
    expect(inForm(2, 'long-ordinal', english)).toBe('2nd');
  });
  it.each([[1, 'i'], [4, 'iv'], [9, 'ix'], [14, 'xiv'], [40, 'xl'], [1994, 'mcmxciv'], [0, '0'], [10_000, '10000']])(
    'in roman numerals %d is %s',
    (number, text) => expect(roman(number)).toBe(text),
  ); // prettier-ignore
});

describe('a value of a number variable', () => {
  // CSL 1.0.2, "Choose", is-numeric, with its own examples.
  it.each(['5', 'D2', '2b', 'L2d', '2, 3', '2-4', '2 & 4', '12–14', 'xii', 'i-ix'])('%s is numeric', (v) =>
    expect(isNumeric(v)).toBe(true),
  );
  it.each(['', 'second', '2nd edition', 'part 3', '1.4', '12-A', 'XII', 'MIX'])('“%s” is not', (v) =>
    expect(isNumeric(v)).toBe(false),
  );
  it.each(['2, 3', '2-4', '2 & 4', '12–14', 'i-ix', '7 and 9'])('%s is several', (v) =>
    expect(isSeveral(v)).toBe(true),
  );
  it.each(['5', '123,456', 'D2', 'Michaelson-Morely'])('%s is one', (v) => expect(isSeveral(v)).toBe(false));
  it('prints its numbers in the form, hyphens as dashes, and stays as it is when it is none', () => {
    expect(numberText('2-3', 'ordinal', english)).toBe('2nd–3rd');
    expect(numberText('2 &3,  5', 'numeric', english)).toBe('2 & 3, 5');
    expect(numberText('77-12', 'numeric', english)).toBe('77-12');
    expect(numberText('second, revised', 'ordinal', english)).toBe('second, revised');
  });
});

describe('ranges of pages', () => {
  // CSL 1.0.2, appendix V, "Page Range Formats": its examples.
  it.each([
    ['chicago', '3-10', '3–10'], ['chicago', '71-72', '71–72'], ['chicago', '100-104', '100–104'], ['chicago', '600-613', '600–613'],
    ['chicago', '1100-1123', '1100–1123'], ['chicago', '107-108', '107–8'], ['chicago', '505-517', '505–17'], ['chicago', '1002-1006', '1002–6'],
    ['chicago', '321-325', '321–25'], ['chicago', '415-532', '415–532'], ['chicago', '11564-11568', '11564–68'], ['chicago', '13792-13803', '13792–803'],
    ['chicago', '1496-1504', '1496–1504'], ['chicago', '2787-2816', '2787–2816'],
    ['expanded', '42-45', '42–45'], ['expanded', '321-8', '321–328'], ['expanded', '2787-816', '2787–2816'],
    ['minimal', '42-45', '42–5'], ['minimal', '321-328', '321–8'], ['minimal', '2787-2816', '2787–816'],
    ['minimal-two', '42-45', '42–45'], ['minimal-two', '321-328', '321–28'], ['minimal-two', '2787-2816', '2787–816'],
  ] as const)('%s: %s is %s', (format, value, text) => expect(pageRanges(value, format, '–')).toBe(text)); // prettier-ignore
  it('leave a hyphen that is part of a number, and one behind a backslash', () => {
    expect(pageRanges('N110 - P5', 'expanded', '–')).toBe('N110-P5');
    expect(pageRanges('327\\-30', undefined, '–')).toBe('327-30');
    expect(pageRanges('12, 15-17', undefined, '–')).toBe('12, 15–17');
    const words = `${'a'.repeat(90)}1-2`;
    expect(pageRanges(`${words}, 15-17`, undefined, '–')).toBe(`${words}, 15–17`);
  });
});
