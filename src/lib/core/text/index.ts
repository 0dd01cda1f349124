export { joinedLines } from './lines';
export { spokenText } from './spoken';
export { nfc, fold, foldWords, squash, plain, escapeHtml, decodeEntities } from './fold';
export { excerpt, type Excerpt } from './excerpt';
export { codePointLength, toCodePoint, toCodeUnit, sliceCodePoints } from './units';
export { isShouting, sentenceCase } from './case';
export { similarity } from './similarity';
export { hasControls, withoutControls } from './controls';
export { inOneLine, withoutTrailing } from './trailing';
