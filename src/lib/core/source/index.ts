export * from './variables';
export {
  cslDate,
  cslName,
  emptyRecord,
  itemOf,
  originKind,
  plainlyRecord,
  ORIGIN_KINDS,
  problemsOf,
  sourceRecord,
  takenOutOf,
  tidied,
  tidiedRecord,
  toCsl,
  translations,
  type CslDate,
  type CslItem,
  type CslName,
  type OriginKind,
  type Own,
  type Seen,
  type SourceRecord,
} from './schema';
export {
  AND_OTHERS,
  looksInstitutional,
  nameText,
  othersUnnamed,
  parseName,
  parseNames,
  samePerson,
  shortName,
} from './creators';
export { cslTypeOf, nameFromCsl } from './from-csl';
export { edtfOf, isOpenRange, parseEdtf } from './edtf';
export { languageOf, languageTag } from './languages';
export { dateProblem, dateText, datesAgree, parseDate, precisionOf, typedDate, yearOf } from './dates';
export {
  addressKey,
  arxivDoi,
  bareDoi,
  doiKey,
  findArxiv,
  findDoi,
  findHandle,
  findIsbn,
  findIssn,
  findPmid,
  firstIsbnKey,
  isbnKey,
  isbnKeys,
  isIsbn10,
  isIsbn13,
  isIssn,
  isOrcid,
  issnText,
  orcidText,
  recognise,
  recogniseLines,
  withoutPassword,
  type Given,
} from './identifiers';
export {
  askedFields,
  askedInOrder,
  firstFields,
  creatorsOf,
  fieldLabel,
  fieldName,
  groupOf,
  GROUPS,
  otherFields,
  shownFields,
  TYPE_LABELS,
  type Group,
} from './fields';
export {
  CITEKEY_BETWEEN,
  CITEKEY_PART_LABELS,
  CITEKEY_PARTS,
  citekeyStem,
  makeCitekey,
  nthCitekey,
  USUAL_CITEKEY,
  type CitekeyPart,
  type CitekeyPattern,
} from './citekey';
export { derive, FACETS, facetsOfRecord, headline, shortLabel, type Derived, type Facet } from './derive';
export { alternativesOf, ORIGIN_LABELS, originOf, sameValue, valueText, withEdit } from './origins';
export { canReplace, canSet, changeProblem, fieldChanged, type FieldChange } from './changing';
export { keywordsNotTaken, keywordsOf } from './keywords';
export {
  PLAIN_LOOK,
  TAG_PATTERNS,
  TAG_TINTS,
  tagLook,
  type TagLook,
  type TagPattern,
  type TagTint,
} from './tag-looks';
export {
  credibility,
  CREDIBILITY_QUESTIONS,
  credibilityText,
  joinedCredibility,
  REVIEWED,
  reviewedWords,
  TRUST,
  trustWords,
  type Credibility,
} from './credibility';
export {
  TRANSLATED,
  translationIn,
  translationsOf,
  translationsText,
  withTranslations,
  type Translated,
  type Translation,
} from './translations';
