export { compare, keysOf, type Judgement } from './compare';
export {
  agreeing,
  mergeEffect,
  mergeRecords,
  suggest,
  type MergeEffect,
  type MergeField,
  type Side,
  type Suggestion,
} from './merge';
