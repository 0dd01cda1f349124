export { fromLeaves } from './front';
export { readingHtml } from './html';
export { languagesInWords, RECOGNISED, recognised, type Recognised } from './languages';
export { printedLabels } from './labels';
export { bodySize, joined, linesOf, paragraphsOf, type Line, type Paragraph } from './lines';
export type { DocumentData, Leaf, Run } from './types';
