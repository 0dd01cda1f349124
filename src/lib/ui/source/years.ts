/** Sources of some years that follow each other, both ends included. */
export interface YearBin {
  from: number;
  to: number;
  n: number;
}

/** How many bars are told apart at a glance. */
const MOST_BINS = 60;
const STEPS = [1, 10, 50, 100, 500, 1_000];

/**
 * Counts of years in bars of equal width, which is a year, a decade or more, as many as fill the axis from the first to the
 * last without a gap; years before our era have negative numbers.
 */
export function yearBins(years: readonly { year: number; n: number }[]): YearBin[] {
  if (years.length === 0) return [];
  const all = years.map((y) => y.year);
  const [first, last] = [Math.min(...all), Math.max(...all)];
  const step = STEPS.find((s) => (last - first) / s < MOST_BINS) ?? STEPS.at(-1)!;
  const start = Math.floor(first / step) * step;
  const bins: YearBin[] = [];
  for (let from = start; from <= last; from += step) bins.push({ from, to: from + step - 1, n: 0 });
  for (const { year, n } of years) bins[Math.floor((year - start) / step)]!.n += n;
  return bins;
}

/** Where an axis of years begins and ends, and into how many parts it is divided, so that its labels are round numbers. */
export interface YearAxis {
  min: number;
  max: number;
  parts: number;
}

const MOST_LABELS = 7;

export function yearAxis(bins: readonly YearBin[]): YearAxis {
  const [first, last] = [bins[0]?.from ?? 0, bins.at(-1)?.to ?? 0];
  const nice = (step: number) => {
    const min = Math.floor(first / step) * step;
    const max = Math.ceil((last + 1) / step) * step;
    return { min, max, parts: (max - min) / step };
  };
  for (let unit = 1; ; unit *= 10)
    for (const step of [unit, 2 * unit, 5 * unit]) {
      const axis = nice(step);
      if (axis.parts <= MOST_LABELS) return axis;
    }
}

/** Years so long are not told apart in one chart. */
const LONG = 150;

/** The span one looks at first: all of it, or where it is long the later part that has nineteen in twenty of the sources. */
export function mostOf(years: readonly { year: number; n: number }[]): { from: number; to: number } {
  const sorted = [...years].sort((a, b) => a.year - b.year);
  const [first, last] = [sorted[0]?.year ?? 0, sorted.at(-1)?.year ?? 0];
  if (last - first < LONG) return { from: first, to: last };
  let left = sorted.reduce((sum, y) => sum + y.n, 0) / 20;
  for (const { year, n } of sorted) {
    left -= n;
    if (left < 0) return { from: year, to: last };
  }
  return { from: first, to: last };
}

/** A span of years in words. */
export const spanOf = (from: string, to: string): string =>
  from && to ? (from === to ? from : `${from}–${to}`) : from ? `from ${from}` : to ? `to ${to}` : '';
