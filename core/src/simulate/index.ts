export { normal, pick, type Random, seeded } from './random.ts';
export { drawJob, type DrawnJob, knowsTheFault, type Move, type Order, search, type SearchResult } from './search.ts';
export { ourOrder, remembering } from './our-order.ts';
export { disturbed } from './disturb.ts';
export { expectedMinutesOf, leastExpectedMinutes, part } from './exact.ts';
export {
  railVolts,
  type RunningSupply,
  runSupply,
  type SimulatedRail,
  simulatedSupplies,
  type SimulatedSupply,
  type SimulatedSupplyName,
  startSupply,
} from './supply.ts';
export {
  type DrawnRail,
  drawRail,
  errorOf,
  type ForecastScore,
  meterOf,
  type RailWorld,
  railWorlds,
  scoreForecasts,
  shownBy,
} from './rail-worlds.ts';
