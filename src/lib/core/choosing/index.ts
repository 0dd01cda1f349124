export {
  judgedBy,
  says,
  VERDICT_WORDS,
  VERDICTS,
  WAY_WORDS,
  WAYS,
  type Ballot,
  type Says,
  type Vote,
  type Way,
} from './votes';
export { orderPoints, outcomes, type Outcome } from './outcome';
export { agreement, STRENGTH_WORDS, strengthOf, type Agreement } from './agreement';
export { openTo } from './hidden';
