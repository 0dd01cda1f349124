import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { aligned, nearest } from './letters';

/** The fewest letters put in, left out or replaced, by the plain table (Wagner and Fischer 1974). */
function distance(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next[j] = Math.min(row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1), row[j]! + 1, next[j - 1]! + 1);
    row = next;
  }
  return row[b.length]!;
}

const codesOf = (text: string) => Uint16Array.from(text, (c) => c.charCodeAt(0));
/** Texts of few letters, so that many of them are near each other. */
const text = (max: number) =>
  fc.array(fc.constantFrom(...'abc'), { minLength: 1, maxLength: max }).map((letters) => letters.join(''));

describe('the nearest stretch of a text', () => {
  it('differs by as little as any stretch does, and by what is said', () => {
    fc.assert(
      fc.property(text(9), text(24), (pattern, codes) => {
        const [p, t] = [codesOf(pattern), codesOf(codes)];
        const found = nearest(p, t, 0, t.length);
        let least = p.length;
        for (let i = 0; i <= t.length; i++)
          for (let j = i; j <= t.length; j++) least = Math.min(least, distance(p, t.subarray(i, j)));
        expect(found.distance).toBe(least);
        if (least < p.length) expect(distance(p, t.subarray(found.start, found.end))).toBe(least);
      }),
    );
  });
  it('is the same within bounds, and none where there is none', () => {
    fc.assert(
      fc.property(text(9), text(24), fc.nat(9), (pattern, codes, most) => {
        const [p, t] = [codesOf(pattern), codesOf(codes)];
        const free = nearest(p, t, 0, t.length);
        const bound = nearest(p, t, 0, t.length, most);
        if (free.distance <= Math.min(most, p.length - 1)) expect(bound).toEqual(free);
        else expect(bound).toEqual({ start: 0, end: 0, distance: p.length });
      }),
    );
  });
  it('is that of the whole table, for patterns of any length, to the letter', () => {
    const long = (max: number) =>
      fc.array(fc.constantFrom(...'aabcdefgh'), { minLength: 1, maxLength: max }).map((l) => l.join(''));
    fc.assert(
      fc.property(
        long(140),
        long(400),
        fc.nat(150),
        fc.nat(60),
        fc.boolean(),
        (pattern, codes, most, from, inside) => {
          // Within a text that has the pattern with a few letters changed, as within one that has not.
          const t = codesOf(
            inside ? `${codes}${pattern.replace(/[ab](?=c)|h/g, '')}${codes.slice(0, 50)}` : codes,
          );
          const p = codesOf(pattern);
          expect(nearest(p, t, from, t.length, most)).toEqual(aligned(p, t, from, t.length, most));
        },
      ),
      { numRuns: 400 },
    );
  });
});
