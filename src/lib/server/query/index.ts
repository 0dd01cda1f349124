export { asQueried, fieldsOf, HANGS, wordsOf } from './repository';
