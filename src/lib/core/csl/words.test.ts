import { describe, expect, it } from 'vitest';
import { inCase } from './case';
import { leavesOf, textOfLeaves } from './leaves';
import { openLocale } from './locale';
import { initials } from './names';
import { piece, textOf } from './pieces';
import { richText } from './rich';
import type { Tree } from './tree';

const terms = (...pairs: [string, string][]): Tree => ({
  name: 'locale',
  attrs: {},
  children: [
    ...pairs.map(([name, text]): Tree => ({ name: 'term', attrs: { name }, children: [text] })),
    { name: 'style-options', attrs: { 'punctuation-in-quote': 'true' }, children: [] },
  ],
});
const english = openLocale([terms(['open-quote', '“'], ['close-quote', '”'], ['open-inner-quote', '‘'], ['close-inner-quote', '’'])], 'en-US'); // prettier-ignore
const german = openLocale([{ ...terms(['open-quote', '„'], ['close-quote', '“'], ['open-inner-quote', '‚'], ['close-inner-quote', '‘']), children: terms(['open-quote', '„'], ['close-quote', '“'], ['open-inner-quote', '‚'], ['close-inner-quote', '‘']).children.slice(0, 4) }], 'de-DE'); // prettier-ignore
const print = (nodes: Parameters<typeof leavesOf>[0], locale = english) =>
  textOfLeaves(leavesOf(nodes, locale));

describe('quotation marks of a field', () => {
  it.each([
    ['a "b" c', 'a “b” c'],
    ["a 'b' c", 'a “b” c'],
    ["it's the dogs' tail", 'it’s the dogs’ tail'],
    ["(ETFA '09)", '(ETFA ’09)'],
    ['“a ‘b’ c”', '“a ‘b’ c”'],
    ['a "b c', 'a "b c'],
    ['rock ’n’ roll', 'rock ’n’ roll'],
  ])('%s prints %s', (text, printed) => expect(print(richText(text))).toBe(printed));
  it('are those of the language, inner ones inside', () => {
    expect(print([piece(richText('a "b" c'), { quoted: true })], german)).toBe('„a ‚b‘ c“');
  });
  it('take a full stop behind them inside, where the language has it so', () => {
    const quoted = piece(['Tide'], { quoted: true });
    expect(print([quoted, '. ', 'Next'])).toBe('“Tide.” Next');
    expect(print([quoted, '; ', 'Next'])).toBe('“Tide”; Next');
    expect(print([quoted, '. ', 'Next'], german)).toBe('„Tide“. Next');
    expect(print([piece(['Tide?'], { quoted: true }), '. ', 'Next'])).toBe('“Tide?” Next');
  });
});

describe('marks that meet', () => {
  // The fixtures punctuation_FullMonty of the CSL test suite name every pair.
  it.each([['a.', '. b', 'a. b'], ['a?', '. b', 'a? b'], ['a:', '; b', 'a:; b'], ['a.', ', b', 'a., b'], ['a,', ', b', 'a, b'], ['a ', ' b', 'a b']])(
    '%s and %s are %s',
    (a, b, both) => expect(print([a, b])).toBe(both),
  ); // prettier-ignore
  it('leave a mark a value begins with', () => expect(print(['a.', ...richText('.net')])).toBe('a..net'));
});

describe('marks of look', () => {
  it('keep what is not one, and close in order', () => {
    expect(textOf(piece(richText('a <x>b</x> <i>c</i> <b>d')))).toBe('a <x>b</x> c <b>d');
  });
  it('inside their own look turn back', () => {
    const [, inner] = leavesOf(
      [piece(['On ', ...richText('<i>Zostera</i>')], { look: { style: 'italic' } })],
      english,
    );
    expect(inner!.frame!.within.style).toBe('normal');
  });
});

describe('letters', () => {
  const cased = (text: string, as: Parameters<typeof inCase>[1], lang = 'en') =>
    textOf(piece(inCase(richText(text), as, lang)));
  // CSL 1.0.2, "Title Case Conversion"; the fixtures textcase_* of the suite.
  it.each([
    ['out-of-fashion initiatives: a second story', 'Out-of-Fashion Initiatives: A Second Story'],
    ['the iPhone and the NASA report', 'The iPhone and the NASA Report'],
    ['salt marsh recovery', 'Salt Marsh Recovery'],
    ['what it is for', 'What It Is For'],
    ['a <span class="nocase">de facto</span> rule', 'A de facto Rule'],
  ])('title case of %s', (text, title) => expect(cased(text, 'title')).toBe(title));
  it('are not made titles of in other languages', () =>
    expect(cased('les îles du nord', 'title', 'fr')).toBe('les îles du nord'));
  it('sentence case leaves what is kept', () =>
    expect(cased('The Tide in <span class="nocase">Gull Bay</span>', 'sentence')).toBe(
      'The tide in Gull Bay',
    ));
  it('large and small go by the language', () => {
    expect(cased('ilık', 'uppercase', 'tr')).toBe('İLIK');
    expect(cased('Tide', 'lowercase')).toBe('tide');
    expect(cased('tide mills', 'capitalize-first')).toBe('Tide mills');
  });
});

describe('initials', () => {
  const of = (given: string, initializeWith: string, initialize = true, hyphenated = true) =>
    initials(given, { initialize, initializeWith, hyphenated });
  // The fixtures name_Initials* and name_CeltsAndToffs* of the CSL test suite.
  it.each([
    ['John Henry', '. ', 'J. H.'], ['John Henry', '', 'JH'], ['Jean-Luc', '.', 'J.-L.'], ['M.E', '. ', 'M. E.'], ['ME', '.', 'M.'], ['Ph.M.E.', '.', 'Ph.M.E.'],
    ['Guillaume de', '.', 'G. de'], ['Дмитрий', '.', 'Д.'],
  ])('%s with “%s” is %s', (given, mark, text) => expect(of(given, mark)).toBe(text)); // prettier-ignore
  it('leave whole words where none are wanted, and mark those there are', () => {
    expect(of('John M.E.', '. ', false)).toBe('John M. E.');
    expect(of('Jean-Luc', '.', true, false)).toBe('J.L.');
  });
});
