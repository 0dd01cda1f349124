import { type Ballot, type Says, VERDICTS } from './votes';

/** How far two people agree on what both judged. */
export interface Agreement {
  /** How many both judged. */
  both: number;
  /** How many they said the same of. */
  alike: number;
  /** How many had each verdict of the first person (outer) and the second (inner). */
  table: number[][];
  /** The part they say the same of, from 0 to 1; nothing where there is none both judged. */
  observed: number | null;
  /** The part they would say the same of by chance, going by how often each says what. */
  expected: number | null;
  /**
   * Cohen’s kappa (Educational and Psychological Measurement 20, 1960, 37–46): (observed − expected) / (1 − expected). Nothing where both
   * always say one and the same, since then chance explains it all.
   */
  kappa: number | null;
}

/** How far the two people of a screening agree; nothing where not two are asked. */
export function agreement({ way, candidates, voters, votes }: Ballot): Agreement | undefined {
  const [first, second] = voters;
  if (way !== 'screening' || !first || !second || voters.length !== 2) return undefined;
  const verdicts = VERDICTS[way];
  const there = new Set(candidates);
  const saidBy = (person: string) =>
    new Map<string, Says>(
      votes
        .filter((vote) => vote.person === person && vote.says && there.has(vote.candidate))
        .map((vote) => [vote.candidate, vote.says!]),
    );
  const [one, other] = [saidBy(first), saidBy(second)];
  const table = verdicts.map(() => verdicts.map(() => 0));
  for (const [candidate, said] of one) {
    const answer = other.get(candidate);
    if (!answer) continue;
    const row = table[verdicts.indexOf(said)]!;
    row[verdicts.indexOf(answer)]! += 1;
  }
  const sum = (numbers: number[]) => numbers.reduce((all, n) => all + n, 0);
  const both = sum(table.map(sum));
  const alike = sum(table.map((row, i) => row[i]!));
  if (both === 0) return { both, alike, table, observed: null, expected: null, kappa: null };
  // In whole numbers as long as can be: what is exactly nothing must not become a little.
  const byChance = sum(table.map((row, i) => sum(row) * sum(table.map((other) => other[i]!))));
  const square = both * both;
  return {
    both,
    alike,
    table,
    observed: alike / both,
    expected: byChance / square,
    kappa: byChance === square ? null : (alike * both - byChance) / (square - byChance),
  };
}

/** Words for how strong an agreement is. */
export const STRENGTH_WORDS = [
  'poor',
  'slight',
  'fair',
  'moderate',
  'substantial',
  'almost perfect',
] as const;

/**
 * How strong an agreement of a kappa is called: poor below 0, then slight to .20, fair to .40, moderate to .60, substantial to .80 and
 * almost perfect (Landis and Koch, Biometrics 33, 1977, 159–174; their bounds are a convention, as they say themselves).
 */
export function strengthOf(kappa: number): (typeof STRENGTH_WORDS)[number] {
  if (kappa < 0) return 'poor';
  return (
    STRENGTH_WORDS[[0.2, 0.4, 0.6, 0.8, 1].findIndex((most) => kappa <= most + 1e-9) + 1] ?? 'almost perfect'
  );
}
