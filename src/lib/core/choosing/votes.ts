/** How several people choose among candidates: an opinion on each, all put in an order, or two who screen apart from each other. */
export const WAYS = ['opinion', 'order', 'screening'] as const;
export type Way = (typeof WAYS)[number];

/** What can be said of one candidate. */
export type Says = 'keep' | 'perhaps' | 'leave' | 'include' | 'exclude';

/** What can be said in each way, from for to against; in an order it is the place that says it. */
export const VERDICTS: Record<Way, readonly Says[]> = {
  opinion: ['keep', 'perhaps', 'leave'],
  order: [],
  screening: ['include', 'exclude'],
};

/** Whether a way knows a verdict. */
export const says = (way: Way, verdict: Says): boolean => VERDICTS[way].includes(verdict);

export const VERDICT_WORDS: Record<Says, string> = {
  keep: 'Keep',
  perhaps: 'Perhaps',
  leave: 'Leave',
  include: 'Include',
  exclude: 'Exclude',
};

/** The ways in words, for who chooses one. */
export const WAY_WORDS: Record<Way, { name: string; says: string }> = {
  opinion: { name: 'An opinion on each', says: 'keep, perhaps or leave, with a reason' },
  order: { name: 'An order', says: 'everybody puts them in an order; the orders are added up' },
  screening: {
    name: 'Screening by two',
    says: 'two people include or exclude without seeing each other’s verdicts; how far they agree is measured',
  },
};

/** What one person says of one candidate: a verdict, or a place in their order, counted from 0. */
export interface Vote {
  candidate: string;
  person: string;
  says: Says | null;
  place: number | null;
  reason: string;
}

/** What is chosen among, by whom and how, and what was said so far. */
export interface Ballot {
  way: Way;
  /** Ids, in the order they are shown in. */
  candidates: readonly string[];
  /** Ids of who is asked. */
  voters: readonly string[];
  votes: readonly Vote[];
}

/** How many of the candidates somebody has judged. */
export function judgedBy({ candidates, votes }: Ballot, person: string): number {
  const there = new Set(candidates);
  return votes.filter((vote) => vote.person === person && there.has(vote.candidate)).length;
}
