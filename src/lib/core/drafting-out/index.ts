export { spelledOut } from './keys';
export { draftDocument, type MathsOf } from './html';
export { draftToLatex } from './latex';
export { draftToMarkdown, type Citing } from './markdown';
export { laidOut, notesIn, type DraftOut, type Laid, type PictureOut, type Stretch } from './layout';
export { draftOdt, type MathmlOf, type OdtFiles } from './odt';
export { ommlOf } from './omml';
