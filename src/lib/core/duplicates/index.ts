export { compare, keysOf, type Judgement } from './compare';
export { agreeing, mergeRecords, suggest, type MergeField, type Side, type Suggestion } from './merge';
