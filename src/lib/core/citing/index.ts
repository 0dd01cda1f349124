export { nodesNamed, openTree, type CompactTree, type Tree } from './tree';
export { treeOfElement } from './xml';
export {
  createPrinter,
  openEngine,
  styleFacts,
  type CitationFormat,
  type CiteItem,
  type PrintedList,
  type PrintedReference,
  type Printer,
} from './printer';
export { asksFor, missingFor } from './asks';
export { runsToHtml, runsToLatex, runsToMarkdown, runsToRtf, runsToText, runsOf, type Run } from './runs';
export { htmlDocument, latexDocument, listToHtml, listToText, markdownDocument, rtfDocument } from './output';
export { FORMAT_LABELS, LOCALES, localeLabel, STYLES, styleLabel, type StyleChoice } from './styles';
