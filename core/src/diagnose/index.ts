export {
  type Check,
  type CheckKind,
  checkKinds,
  type CheckOutcome,
  type Cure,
  type Danger,
  type DangerWay,
  type Fault,
  type FaultGroup,
  faultGroups,
  type Hazard,
  hazards,
  isEndedBy,
  isFromFile,
  type Knowledge,
  type KnowledgeProblem,
  type LikelihoodRow,
  type Need,
  needs,
  type Powering,
  validateKnowledge,
  type About,
  abouts,
} from './knowledge.ts';
export { repairCheckId, rightRepairFails, triedCureId, triedCures, wrongRepairCures } from './repair.ts';
export {
  allPowering,
  barring,
  cureAllowed,
  type DangerCause,
  type DangerSign,
  type Interlock,
  interlocksOf,
  madeSafeId,
  safetyCheckId,
  standingInterlock,
} from './interlock.ts';
export { dampingOf, groupDamping, saidTogether } from './damping.ts';
export {
  compileModel,
  type Model,
  normalise,
  type Observation,
  posterior,
  type Rows,
  weigh,
  type Weighted,
  checkNamed,
  faultNamed,
} from './model.ts';
export {
  comeBackMinutes,
  type CureCost,
  cureCosts,
  expectedRepairMinutes,
  firstCure,
  proveMinutes,
  wrongPartMinutes,
} from './remaining-time.ts';
export {
  type Bench,
  type NextCheck,
  machineRuns,
  nearMinutes,
  type OutcomePreview,
  rankChecks,
  worthMinutes,
  worthOf,
} from './next-check.ts';
export { type Evidence, type Strength, type Suspect, suspects } from './explain.ts';
export {
  type Caution,
  conclude,
  type Conclusion,
  type Likely,
  type Footing,
  type NextStep,
  nextStep,
  provingFirst,
  usualCaution,
} from './conclusion.ts';
export { type Ranked, rankFaults } from './rank-faults.ts';
export { swapThatCured } from './after-swap.ts';
export {
  learn,
  type Learned,
  movedShares,
  othersWeightJobs,
  type OutcomeCount,
  shareInterval,
  shippedPriorJobs,
  shippedWeightJobs,
  type ShopRecord,
} from './learn.ts';
export { type Contradiction, contradictionIn, type MindChanger, mindChangers } from './contradiction.ts';
export { diagnose, type Diagnosis, type SearchTerms } from './diagnose.ts';
export {
  bothSay,
  doubleShare,
  type FaultPair,
  lookingForFirst,
  partlySeen,
  type TwoFaults,
  twoFaultsIn,
} from './two-faults.ts';
export { type Moved, movedMost, type Tally, type Trust, trustIn } from './trust.ts';
export { absentIn, modelOf } from './machine-model.ts';
export { type CheckAtPlug, checkAtPlug, mainInletOf, pinOn20 } from './main-plug.ts';
