export { evenLabel, figureStrip, pieceBox, readAgain } from './even-label.ts';
export { type Grey, greyOf } from './grey.ts';
export type { Box, PrintedWord } from './printed.ts';
export {
  type FigureDoubt,
  type LabelRead,
  type LabelReadProblem,
  readLabel,
  type ReadFigure,
  type ReadLimit,
  type ReadOutput,
  withSecondReading,
} from './read-label.ts';
