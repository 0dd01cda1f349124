export { nodesNamed, openTree, type CompactTree, type Tree } from '../csl';
export { entangledIn } from './entangled';
export {
  createPrinter,
  styleFacts,
  type CitationFormat,
  type CiteItem,
  type PrintedList,
  type PrintedCitation,
  type PrintedReference,
  type PrintedText,
  type TextCitation,
  type Printer,
  type StyleFacts,
} from './printer';
export type { ToldList, ToldWork } from './telling';
export { asksFor, missingFor, titleAsItStands } from './asks';
export {
  annotated,
  ANNOTATION_KINDS,
  grouped,
  KIND_HEADINGS,
  kindOf,
  type Annotation,
  type AnnotationKind,
  type Remark,
} from './arrange';
export { listTerms, placeIn, type ListTerms } from './terms';
export { citedKeys } from './cited';
export {
  elementLines,
  printTraced,
  type ShownElement,
  type TracedPrint,
  type TracedReference,
} from './tracing';
export {
  runsToHtml,
  runsToLatex,
  runsToMarkdown,
  runsToRtf,
  runsToText,
  runsOfLeaves,
  writable,
  type Run,
} from './runs';
export {
  HEADING,
  htmlDocument,
  entryRuns,
  latexDocument,
  listToHtml,
  listToText,
  markdownDocument,
  rtfDocument,
} from './output';
export {
  FIELD_LABELS,
  FORMAT_LABELS,
  LOCALES,
  localeLabel,
  styleLanguage,
  STYLES,
  styleLabel,
  type StyleChoice,
} from './styles';
