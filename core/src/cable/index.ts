export {
  type Adapter,
  type CableKit,
  type CodedWatts,
  codedWatts,
  type InletToServe,
  type KitCable,
  type KitPlug,
  type Pin,
  type Socket,
} from './kit.ts';
export { cableAmps12, type Carried } from './carried.ts';
export { type FoundAdapter, type FoundHarm, foundHarm, mostFoundLegs } from './found-adapter.ts';
export { adapterCarries, type AdapterRefusal, adapterRefusal, adapterServes } from './adapters.ts';
export { plugFits } from './own-plug.ts';
export { betweenMillimetres, reachMillimetres, usualPlace } from './routing.ts';
export { compareScores, type PlanScore } from './score.ts';
export {
  type Assignment,
  type CablePlan,
  type OpenInlet,
  type OpenReason,
  planCables,
  type PlannedCable,
  type PlanRules,
  rememberingPlanner,
  usualRules,
} from './plan.ts';
export { goesBetween, type PinRefusal } from './pins.ts';
export { newBudget, type Budget } from './plan-family.ts';
export { searchFamily } from './search-family.ts';
export { planFamily } from './solve-family.ts';
export { tabulateFamily } from './plan-table.ts';
export { breachConcerns, carriesOpposite, checkPlan, type PlanBreach } from './check.ts';
export { type CableFigures, cableFigures, type CarriedRail, type PlugFigures } from './figures.ts';
export { type CableRemedy, explainOpen, type HeldBack, type OpenBecause, type Shortage } from './explain.ts';
export {
  type CrossedPin,
  type Crossing,
  countedWatts,
  crossingOf,
  faceOfPlug,
  type PlugWiring,
  type SocketPinout,
  type WireEnd,
  wiredCode,
  worstCrossing,
} from './crossing.ts';
export {
  allowedAdapters,
  type BagAdapter,
  type BagCable,
  type CableBags,
  type CableProof,
  noBags,
  type Pinout,
  spareId,
  sparesBySupply,
  sparesFor,
  sparesToProbe,
  type SpareVerdict,
  spareVerdict,
} from './bags.ts';
export {
  endFamily,
  mayHaveTwoEnds,
  socketChoices,
  socketsLabel,
  socketsNamed,
  socketsTake,
  type Room,
} from './supply-ends.ts';
export { unprovedPlugs, type WalkedPlug } from './proved.ts';
