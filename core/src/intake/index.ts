export { isSought, type SoughtPart, soughtPart } from './sought-part.ts';
export { likeEarlier } from './like.ts';
export { upgradeInWords, upgradeLine } from './planned-upgrade.ts';
export { mostLetters, type OwnName, understand } from './understand.ts';
export type { Doubt, Said, SaidPart, SaidTooLittle, Span, Understood } from './said.ts';
export { boardForGranted, type LeftOpen, type OwnPartSource, takeIn, type TakenIn } from './take-in.ts';
export { type MachineTemplate, machineTemplates } from './templates.ts';
export {
  isThereAlready,
  type ListedDoubt,
  type ListedDrive,
  type ListedMachine,
  type ListedPart,
  type ListedVolts,
  type ListingKind,
  type ListingProblem,
  type ListingsRead,
  type ListingText,
  mostListingLetters,
  partsListed,
  type PickedPart,
  type ReadCsv,
  readListings,
  takeListed,
} from './listing/index.ts';
export {
  type Box,
  evenLabel,
  type FigureDoubt,
  figureStrip,
  type Grey,
  greyOf,
  type LabelRead,
  type LabelReadProblem,
  pieceBox,
  type PrintedWord,
  readAgain,
  type ReadFigure,
  readLabel,
  type ReadLimit,
  type ReadOutput,
  withSecondReading,
} from './label/index.ts';
