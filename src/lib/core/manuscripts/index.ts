export { isDocxPart, printDocx } from './docx';
export { isOdtPart, printOdt } from './odt';
export {
  setManuscript,
  UnreadableManuscript,
  type MissingKey,
  type Parts,
  type PrintedParts,
  type SetManuscript,
  type Works,
} from './setting';
export { printTex, type PrintedTex } from './tex';
export { inTemplate, isTemplatePart } from './template';
