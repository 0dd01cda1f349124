export { citationsOfMarkdown, type FoundCitation, type Manuscript } from './markdown';
export { parseLocated, type Located } from './locators';
export { printMarkdown, type PrintedManuscript } from './print';
export { citedWork, citeItem, typedPlace, typedWork, type CitedWork } from './cites';
export {
  blocksIn,
  captionIn,
  inlinesIn,
  LONGEST_PART,
  partContent,
  type Block,
  type Caption,
  type DraftPart,
  type Inline,
  type Mark,
} from './document';
export {
  citationsOf,
  countWords,
  namesOf,
  numbered,
  readPart,
  sectionsOf,
  textOfBlock,
  textOfInlines,
  worksCited,
  type DraftCitations,
  type DraftSection,
  type Met,
  type MetInText,
  type PartReading,
} from './reading';
export { mergedOrder } from './order';
export { blockWords, placed, workOf, type Material } from './placing';
export {
  checkDraft,
  DRAFT_CHECKS,
  quotesTruly,
  SECTION_WORDS,
  type DraftAround,
  type DraftCheck,
  type DraftFinding,
  type KnownPassage,
  type KnownWork,
} from './checks';
export {
  BORROWED_WORDS,
  borrowedFrom,
  borrowings,
  indexOwn,
  ownTexts,
  type BorrowedRun,
  type Borrowing,
  type OwnIndex,
  type OwnText,
} from './borrowed';
