export { newParts, type PartSource, withFigures } from './new-part.ts';
export {
  type CaseLayout,
  caseLayouts,
  type CasePlace,
  casePlaces,
  type Casing,
  type FigureSource,
  figureSources,
  type Inlet,
  type MachineMoment,
  type MachinePart,
  type PartChange,
  partChanges,
  partsAt,
  type PowerFigures,
} from './part.ts';
export { ownMainLabel, type PartClass, partClass, partClasses } from './part-classes.ts';
export {
  ageShare,
  type CombinedLimit,
  deratedLabel,
  emptyLabel,
  type LabelProblem,
  labelProblems,
  nominalVolts,
  type RailRating,
  modularities,
  type Modular,
  type SupplyLabel,
  twelveVoltWatts,
} from './supply-label.ts';
export { type DateRead, readDate, yearsSince } from './date-code.ts';
export {
  asRead,
  hasUsualOutputs,
  shapesOfLayout,
  shapesWithSupply,
  usualOutputs,
  usualShape,
  withRating,
} from './usual-supply.ts';
