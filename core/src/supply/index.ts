export { type FanSide, fanSides, type Money, type Price, type SupplyModel } from './model.ts';
export {
  type DayProfile,
  paybackYears,
  type PointOfWork,
  type RunningCost,
  runningCost,
  type Tariff,
  type WorkPoint,
} from './running-cost.ts';
export { type FitQuestion, fitQuestion, inletsToServe, noWants, type Wants } from './question.ts';
export { type FitReason, type TooLarge } from './reasons.ts';
export { type Assessed, assessSupply, hungByPlan } from './assess-supply.ts';
export { type Candidate, type CandidateClass, candidateClasses, judgeSupply } from './fit.ts';
export { type Remedy } from './remedies.ts';
export {
  allowedBySchool,
  beats,
  type CandidateRow,
  candidateRow,
  compareRanked,
  criteria,
  type Criterion,
  criterionFigure,
  type Mark,
  type NothingFits,
  nothingFits,
  type RankedSupply,
  rankSupplies,
  type RankingUnderWay,
  startRanking,
  type Weights,
} from './rank.ts';
