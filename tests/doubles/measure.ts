import type { Labelled } from './works';

/** How well groups fit the works records are of, counted over pairs of records. */
export interface Quality {
  precision: number;
  recall: number;
  f1: number;
  /** Pairs that were put together and are of two works, and pairs of one work that were not. */
  wrong: [string, string][];
  missed: [string, string][];
}

/** Measures groups of ids against the works. */
export function qualityOf(set: readonly Labelled[], groups: readonly { ids: readonly string[] }[]): Quality {
  const workOf = new Map(set.map(({ id, work }) => [id, work]));
  const groupOf = new Map(groups.flatMap(({ ids }, n) => ids.map((id) => [id, n] as const)));
  const pairs = (all: readonly (readonly string[])[]) =>
    all.flatMap((ids) => ids.flatMap((a, i) => ids.slice(i + 1).map((b) => [a, b] as [string, string])));
  const works = new Map<number, string[]>();
  for (const { id, work } of set) works.set(work, [...(works.get(work) ?? []), id]);
  const given = pairs(groups.map((g) => g.ids));
  const wanted = pairs([...works.values()]);
  const wrong = given.filter(([a, b]) => workOf.get(a) !== workOf.get(b));
  const missed = wanted.filter(([a, b]) => groupOf.get(a) === undefined || groupOf.get(a) !== groupOf.get(b));
  const right = given.length - wrong.length;
  const precision = given.length === 0 ? 1 : right / given.length;
  const recall = wanted.length === 0 ? 1 : right / wanted.length;
  return {
    precision,
    recall,
    f1: precision + recall === 0 ? 0 : (2 * precision * recall) / (precision + recall),
    wrong,
    missed,
  };
}
