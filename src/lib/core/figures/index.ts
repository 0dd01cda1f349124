export { captionNear, isCaption, readCaption, type Caption, type LeafLine } from './caption';
export { arrowHead, drawingInWords, drawingSvg, FACE, INKS, PEN, type Size } from './drawing';
export { picturesIn, type PagePicture } from './pictures';
export { boxOfFragment, boxOfSvg, boxToSvg } from './selector';
export {
  box,
  figurePlace,
  figureWords,
  MOST_SHAPES,
  point,
  shape,
  SMALLEST,
  WHOLE,
  type Box,
  type CutOut,
  type Figure,
  type FigurePlace,
  type FigureWords,
  type Point,
  type Shape,
} from './types';
