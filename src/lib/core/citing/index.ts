export { openTree, type CompactTree, type Tree } from './tree';
export {
  createPrinter,
  styleFacts,
  type CitationFormat,
  type CiteItem,
  type PrintedList,
  type PrintedReference,
  type Printer,
} from './printer';
export { asksFor } from './asks';
export { runsToHtml, runsToRtf, runsToText, runsOf, type Run } from './runs';
export { htmlDocument, listToHtml, listToText, rtfDocument } from './output';
export { FORMAT_LABELS, LOCALES, localeLabel, STYLES, styleLabel, type StyleChoice } from './styles';
