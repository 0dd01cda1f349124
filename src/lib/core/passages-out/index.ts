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
  type OutLayout,
  type PassageOut,
  type PassagesOut,
} from './write';
export {
  annotationOf,
  annotationPage,
  readAnnotations,
  type AnnotatedDocument,
  type ReadAnnotation,
} from './annotations';
