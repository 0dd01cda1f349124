import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mostOf, spanOf, yearAxis, yearBins } from './years';

const SEED = Number(process.env.SEED ?? 20261126);
const counts = (...years: [number, number][]) => years.map(([year, n]) => ({ year, n }));

describe('years in bars', () => {
  it('are one a year where there are few, without a gap', () => {
    expect(yearBins(counts([2019, 2], [2022, 1]))).toEqual([
      { from: 2019, to: 2019, n: 2 },
      { from: 2020, to: 2020, n: 0 },
      { from: 2021, to: 2021, n: 0 },
      { from: 2022, to: 2022, n: 1 },
    ]);
  });
  it('are decades, and more, where they are many', () => {
    expect(yearBins(counts([1903, 1], [1909, 2], [2020, 3])).filter((b) => b.n)).toEqual([
      { from: 1900, to: 1909, n: 3 },
      { from: 2020, to: 2029, n: 3 },
    ]);
    expect(yearBins(counts([-44, 1], [2020, 1])).filter((b) => b.n)).toEqual([
      { from: -50, to: -1, n: 1 },
      { from: 2000, to: 2049, n: 1 },
    ]);
  });
  it(`hold every source once, whatever the years (seed ${SEED})`, () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ year: fc.integer({ min: -3_000, max: 2_100 }), n: fc.nat(50) }), {
          minLength: 1,
        }),
        (years) => {
          const bins = yearBins(years);
          const sum = (rows: { n: number }[]) => rows.reduce((total, { n }) => total + n, 0);
          expect(sum(bins)).toBe(sum(years));
          expect(bins.length).toBeLessThanOrEqual(61);
          bins.slice(1).forEach((bin, i) => expect(bin.from).toBe(bins[i]!.to + 1));
          const axis = yearAxis(bins);
          expect(axis.min).toBeLessThanOrEqual(bins[0]!.from);
          expect(axis.max).toBeGreaterThan(bins.at(-1)!.to);
          expect(Number.isInteger(axis.parts) && axis.parts <= 7).toBe(true);
        },
      ),
      { seed: SEED },
    );
  });
  it('have an axis with round numbers', () => {
    expect(yearAxis(yearBins(counts([1771, 1], [2021, 1])))).toEqual({ min: 1750, max: 2050, parts: 6 });
    expect(yearAxis(yearBins(counts([2019, 1], [2022, 1])))).toEqual({ min: 2019, max: 2023, parts: 4 });
  });
});

describe('the years one looks at first', () => {
  it('are all of them, but for a few far before the others', () => {
    expect(mostOf(counts([1990, 1], [2020, 9]))).toEqual({ from: 1990, to: 2020 });
    expect(mostOf(counts([926, 1], [1950, 20], [2020, 20]))).toEqual({ from: 1950, to: 2020 });
  });
  it('are said as a span', () => {
    expect([spanOf('1990', '1990'), spanOf('1990', '2000'), spanOf('1990', ''), spanOf('', '2000')]).toEqual([
      '1990', '1990–2000', 'from 1990', 'to 2000',
    ]); // prettier-ignore
  });
});
