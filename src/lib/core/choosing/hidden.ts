import { judgedBy, type Ballot } from './votes';

/**
 * Of which candidates what others said is shown to somebody, so that nobody is led by it: of all once the choice is closed; else with an
 * opinion of those one gave one’s own of, with an order when one gave one’s own, and in screening when both have judged everything. Who is
 * not asked sees it when all who are asked have judged everything.
 */
export function openTo(ballot: Ballot, person: string, closed: boolean): (candidate: string) => boolean {
  const { way, candidates, voters, votes } = ballot;
  if (closed) return () => true;
  if (way === 'screening' || !voters.includes(person)) {
    const all = voters.length > 0 && voters.every((voter) => judgedBy(ballot, voter) === candidates.length);
    return () => all;
  }
  const mine = new Set(votes.filter((vote) => vote.person === person).map((vote) => vote.candidate));
  return way === 'order' ? () => mine.size > 0 : (candidate) => mine.has(candidate);
}
