export { citekeyPattern } from './citekeys';
export * from './editing';
export { KNOWN_FIELDS, knownPeople, knownValues } from './known';
export * from './listing';
export { getSource, getSources, type Source, type SourceFilter } from './repository';
export * from './taking-back';
