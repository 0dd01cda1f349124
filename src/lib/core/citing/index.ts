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
  type StyleFacts,
} from './printer';
export { asksFor, missingFor } from './asks';
export {
  annotated,
  ANNOTATION_KINDS,
  annotationText,
  grouped,
  KIND_HEADINGS,
  kindOf,
  type Annotation,
  type AnnotationKind,
} from './arrange';
export { citedKeys } from './cited';
export { runsToHtml, runsToLatex, runsToMarkdown, runsToRtf, runsToText, runsOf, type Run } from './runs';
export { htmlDocument, latexDocument, listToHtml, listToText, markdownDocument, rtfDocument } from './output';
export {
  FIELD_LABELS,
  FORMAT_LABELS,
  LOCALES,
  localeLabel,
  STYLES,
  styleLabel,
  type StyleChoice,
} from './styles';
