export {
  altOf,
  bySource,
  citesOwn,
  partsOfPassage,
  passagesDocument,
  passagesToCsv,
  passagesToHtml,
  passagesToMarkdown,
  passagesToText,
  type FigureOut,
  type ReplyOut,
  type OutLayout,
  type PassageOut,
  type PassagesOut,
} from './write';
export {
  annotationOf,
  annotationPage,
  readAnnotations,
  type AnnotatedDocument,
  type AnnotatedReply,
  type ReadAnnotation,
} from './annotations';
