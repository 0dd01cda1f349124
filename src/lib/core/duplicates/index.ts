import { judgePair, type Commonness, type Judgement } from './score';
import { signatureOf } from './signature';
import type { SourceRecord } from '../source';

export { blocksOf, holdings } from './blocks';
export {
  commonnessOf,
  findGroups,
  ENOUGH,
  findPairs,
  MOST_OF_ONE_KEY,
  weightOfKey,
  type Found,
} from './find';
export { groupsOf, type Group, type JudgedPair } from './groups';
export {
  agreeing,
  mergeAll,
  mergeEffect,
  mergeRecords,
  proposals,
  suggest,
  typedValue,
  withoutMerge,
  type MergeEffect,
  type MergeField,
  type Picks,
  type Proposal,
  type Side,
  type Suggestion,
} from './merge';
export { RELATION_LABELS, RELATIONS, type Relation } from './relations';
export { judgePair, type Commonness, type Judgement, type Verdict } from './score';
export { signatureOf, type Signature } from './signature';
export {
  DIFFERENCE_WORDS,
  formOfName,
  nameOfForm,
  pairOfForms,
  proposeSpellings,
  respelled,
  SPELLED,
  spellingsOf,
  textOfForm,
  type Difference,
  type Spelled,
  type Spelling,
} from './spellings';
export { hash32 } from './strings';

/** Judges whether two records are of one work. Symmetric. */
export const compare = (a: SourceRecord, b: SourceRecord, common?: Commonness): Judgement =>
  judgePair(signatureOf(a), signatureOf(b), common);
