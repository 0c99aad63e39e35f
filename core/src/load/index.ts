export {
  converterEfficiency,
  inputWatts,
  type LoadRail,
  loadRails,
  type Moment,
  moments,
  owedAt,
  railVolts,
  type RailWatts,
  sharesOf,
} from './moments.ts';
export { type InletDraw, inletDraws, type InletLoad, inletLoads, type Route, routes, routesOf } from './routes.ts';
export { type Demand, demandOf, type DemandOptions, type PartDemand, type Peak } from './demand.ts';
export { type PlugProblem, plugProblems } from './plug-problems.ts';
export {
  hungByInlet,
  type HungLoad,
  type OutputLoad,
  type OutputSpread,
  type SpreadFigure,
  spreadOverOutputs,
} from './outputs.ts';
export {
  assessLoad,
  lastingShare,
  type LoadAssessment,
  type LoadContext,
  type LoadFinding,
  loadFindingCodes,
  loadFindingWords,
  type LoadWord,
  worstOfEach,
} from './assess.ts';
export { peaksCoveredRating, type School, type SchoolRating, schoolRatings, schools } from './schools.ts';
export {
  calibratedParts,
  compareMeasured,
  type MeasuredComparison,
  measuredKinds,
  type MeasuredLoad,
  outputBehind,
} from './measured.ts';
export { drawLoads, type DrawnShare, type LoadDraws, triangularQuantile } from './draws.ts';
