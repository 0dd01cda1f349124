import { type Ballot, type Says, VERDICTS } from './votes';

/** What came of one candidate. */
export interface Outcome {
  candidate: string;
  /** How many said each. */
  counts: Partial<Record<Says, number>>;
  /** How many of those asked judged it. */
  judged: number;
  /** In an order: its points, all orders added up. */
  points: number | null;
  /**
   * More are for it than against it; in screening both include it, or it was settled so. In an order nothing is proposed: how many are
   * taken is for people to say.
   */
  proposed: boolean;
  /** In screening: the two say different things, and it is not settled. */
  disputed: boolean;
}

/**
 * The points of candidates by everybody's order, as de Borda proposed (Mémoire sur les élections au scrutin, 1781): of n candidates the
 * first of an order has n − 1 points, the last none. Who left some out of their order says nothing of which of them is better: these
 * share the points that are left.
 */
export function orderPoints({ candidates, voters, votes }: Ballot): Map<string, number> {
  const points = new Map(candidates.map((id) => [id, 0]));
  const n = candidates.length;
  for (const person of voters) {
    const order = votes
      .filter((vote) => vote.person === person && vote.place !== null && points.has(vote.candidate))
      .sort((a, b) => a.place! - b.place!)
      .map((vote) => vote.candidate);
    if (!order.length) continue;
    const placed = new Set(order);
    order.forEach((id, i) => points.set(id, points.get(id)! + n - 1 - i));
    const left = n - order.length;
    for (const id of candidates) if (!placed.has(id)) points.set(id, points.get(id)! + (left - 1) / 2);
  }
  return points;
}

/** What came of each candidate, the best first; those that stand alike stay in the order they are shown in. */
export function outcomes(ballot: Ballot, settled: ReadonlyMap<string, Says> = new Map()): Outcome[] {
  const { way, candidates, voters, votes } = ballot;
  const asked = new Set(voters);
  const byCandidate = new Map(candidates.map((id) => [id, [] as Ballot['votes'][number][]]));
  for (const vote of votes) if (asked.has(vote.person)) byCandidate.get(vote.candidate)?.push(vote);
  const points = way === 'order' ? orderPoints(ballot) : undefined;
  const found = candidates.map((candidate): Outcome => {
    const said = byCandidate.get(candidate)!;
    const counts: Outcome['counts'] = {};
    for (const vote of said) if (vote.says) counts[vote.says] = (counts[vote.says] ?? 0) + 1;
    const [good, bad] = [VERDICTS[way][0], VERDICTS[way].at(-1)].map((v) => (v ? (counts[v] ?? 0) : 0));
    const over = settled.get(candidate);
    return {
      candidate,
      counts,
      judged: said.length,
      points: points?.get(candidate) ?? null,
      proposed: over ? over === VERDICTS[way][0] : way === 'screening' ? good === 2 : good! > bad!,
      disputed: way === 'screening' && !over && good === 1 && bad === 1,
    };
  });
  const rank = ({ counts, points, judged }: Outcome) =>
    points ?? (judged ? (counts.keep ?? counts.include ?? 0) - (counts.leave ?? counts.exclude ?? 0) : 0);
  return found
    .map((outcome, at) => ({ outcome, at }))
    .sort((a, b) => rank(b.outcome) - rank(a.outcome) || a.at - b.at)
    .map(({ outcome }) => outcome);
}
