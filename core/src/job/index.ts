export type { DangerInWords } from './danger-words.ts';
export {
  type CandidateFacts,
  candidateFacts,
  type ChoiceFacts,
  type FullestLimit,
  type PresentFacts,
} from './choice-facts.ts';
export { foundHarms } from './found-harms.ts';
export { measuringBar, provingPower } from './dangers.ts';
export {
  bareReading,
  type CableProbe,
  cableBagStates,
  type Choice,
  choiceKinds,
  type Finding,
  type FindingKind,
  findingKinds,
  type Hindrance,
  type CameAlong,
  cameAlongKinds,
  hindrances,
  type OldSupply,
  oldSupplies,
  priorities,
  type Priority,
  type Instant,
  type Job,
  type JobPart,
  jobStates,
  type JobState,
  type KeptLog,
  type LaidAside,
  type LaidWay,
  newJob,
  type NotedOutcome,
  type Phase,
  phases,
  type PinnedPlug,
  type PresentSupply,
  type JobNote,
  type Lead,
  type LeadKind,
  type LeadState,
  leadStates,
  type Proof,
  type ProofItem,
  type Reading,
  type RecordedCable,
  type RecordedPlug,
  type Seat,
  type Sheet,
  type SheetField,
  type Signed,
  type SignOff,
  type StepOrder,
  type StepPhase,
  stepPhases,
  type StepTick,
} from './job.ts';
export { type NextReading, type NextReadingReason, recordReading } from './next-reading.ts';
export { fittingOf, isOfFitting, readingsOf, roughReadingsOf } from './fitting.ts';
export { type ChoosingSettings, firstChoosing, type Shop, type ShopSettings } from './shop.ts';
export {
  type FaultSource,
  faultSourceOf,
  type MeasureResult,
  type ObservationSource,
  type SourcedObservation,
} from './observations.ts';
export {
  type CableEnd,
  cableEnds,
  endsNamed,
  type Cabling,
  type HarnessChange,
  harnessChanges,
  type InletRow,
  pieceOf,
  type SeatCheck,
  seatChecks,
  type SeatState,
} from './cabling.ts';
export { type Leftover, leftoversOf, oldCablesOf } from './leftovers.ts';
export { type FreeEnd, freeEndsOf, type FreePiece } from './free-ends.ts';
export {
  cableAt,
  copiedHarness,
  harnessOf,
  type HarnessSource,
  type NewCable,
  newCable,
  pointedAt,
  recordedRows,
  socketAccepts,
  socketsToRecord,
  withInlet,
} from './record-harness.ts';
export { type Step, type StepKind, type StepPart, outNow, stepsOf, unpluggedInlets, wayPoints } from './steps.ts';
export { standsAsLeft, takeBack } from './take-back.ts';
export { type CableTag, figuresOf, type ScheduleLine, scheduleOf, tagsOf } from './tags.ts';
export { presentModel } from './kept-supply.ts';
export { type BareMissing, type BareVerdict, supplyMark, type SupplyMark } from './bare-supply.ts';
export { type CableLaid, cablesLaid } from './laid-ways.ts';
export { likelyHarness, nextCableLabel, usualPlug } from './likely-harness.ts';
export { nextStage, type PathStage, pathStages, pointOfStage } from './path.ts';
export { isConnectorOpen, type OpenPoint, type OpenPointCode, unanswered } from './open-points.ts';
export { proofItems, proofsAsked, standingProof } from './proofs.ts';
export {
  type Station,
  type StationId,
  stationIds,
  stationStates,
  type StationLine,
  type StationState,
} from './stations.ts';
export { type LoadLines, type RailForecast } from './load-lines.ts';
export { faultView, type JobView, viewJob } from './view.ts';
export type { Act, ActContext, ActKind, ActResult, Refusal, SheetChanges } from './act.ts';
export { applyAct } from './apply-act.ts';
export { candidatesOf, type LoadView, loadView, presentCost, questionOf } from './sizing.ts';
export { type KeptPlan } from './kept-supply.ts';
export { type Settling, type Standing } from './standing.ts';
export { jobLimits, type JobList, overfull, roomFor } from './limits.ts';
export {
  basedOnStanding,
  changedBy,
  standingAt,
  standingOutcome,
  subjectOf,
  takesAway,
  versionAt,
  withBase,
} from './subject.ts';
export { knowsOf } from './knows.ts';
export {
  hitOf,
  searchDocument,
  type SearchField,
  type SearchFieldId,
  searchFieldIds,
  searchFields,
  type SearchNames,
  searchWords,
} from './search.ts';
export { copiedLeads, leadKinds, type LikelyLead, likelyLeads, openLeads } from './leads.ts';
