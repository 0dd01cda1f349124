export { citekeyPattern } from './citekeys';
export * from './editing';
export { facetsOf, yearsOf, type FacetValue, type OfferedField } from './facets';
export { KNOWN_FIELDS, knownPeople, knownValues } from './known';
export * from './listing';
export { getSource, getSources, type Source, type SourceFilter } from './repository';
export * from './taking-back';
export { linesOf, type SourceLine } from './lines';

export * from './requests';
