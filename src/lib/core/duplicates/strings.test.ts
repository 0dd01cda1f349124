import { describe, expect, it } from 'vitest';
import { jaroWinkler, sameWord, within } from './strings';

describe('string comparators', () => {
  // Winkler's own examples, as his 1990 paper and its successors print them, to three places.
  it.each([
    ['martha', 'marhta', 0.961],
    ['dwayne', 'duane', 0.84],
    ['dixon', 'dicksonx', 0.813],
    ['jones', 'johnson', 0.832],
    ['abroms', 'abrams', 0.922],
    ['hardin', 'martinez', 0.722],
    ['itman', 'smith', 0.467],
    ['jeraldine', 'geraldine', 0.926],
    ['michelle', 'michael', 0.921],
    ['julies', 'julius', 0.933],
    ['tanya', 'tonya', 0.88],
  ])('Jaro–Winkler of %s and %s is %d', (a, b, expected) => {
    expect(jaroWinkler(a, b)).toBeCloseTo(expected, 3);
    expect(jaroWinkler(b, a)).toBeCloseTo(expected, 3);
  });
  it('is 1 for the same, 0 for nothing in common', () => {
    expect(jaroWinkler('', '')).toBe(1);
    expect(jaroWinkler('abc', '')).toBe(0);
    expect(jaroWinkler('abc', 'xyz')).toBe(0);
  });
  it.each([
    ['sediment', 'sedimnet', 1, true],
    ['sediment', 'sedment', 1, true],
    ['sediment', 'sediiment', 1, true],
    ['sediment', 'sedixent', 1, true],
    ['sediment', 'sentiment', 1, false],
    ['sediment', 'sentiment', 2, true],
    ['', 'ab', 2, true],
    ['', 'abc', 2, false],
  ])('%s and %s are within %d: %s', (a, b, most, expected) => {
    expect(within(a, b, most)).toBe(expected);
    expect(within(b, a, most)).toBe(expected);
  });
  it('takes no number, and no short word, for another mistyped', () => {
    expect(sameWord('report2018', 'report2019')).toBe(false);
    expect(sameWord('mill', 'mall')).toBe(false);
    expect(sameWord('estuary', 'estaury')).toBe(true);
  });
});
