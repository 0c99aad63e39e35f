export { type Confidence, type Source, sources } from './source.ts';
export { type Guide, guides, type RailBand, railBand, railColour, type RailName, railNames } from './rails.ts';
export {
  holdUpLimit,
  type OneLimit,
  type PowerGoodLimits,
  powerGoodLimits,
  powerOnLimit,
  rippleLimit,
} from './signals.ts';
export { modularBendMillimetres, type Shape, shapes } from './shapes.ts';
export {
  carriedShare,
  type ExcursionKind,
  excursionKinds,
  type ExcursionMilliseconds,
  excursionMilliseconds,
  excursionMultiple,
} from './excursions.ts';
export { type Grade, grades, type LossModel, lossModel, lossWatts } from './efficiency.ts';
export {
  conductorAmps,
  contactMilliohms,
  type Gauge,
  gauges,
  limits,
  sixteenPinStraightMillimetres,
  wireMilliohmsPerMetre,
} from './limits.ts';
export {
  cableFamilies,
  type CableFamily,
  inletFace,
  inletFamily,
  type InletKind,
  inletKinds,
  type PinFace,
  type PinSignal,
  socketSignals,
  type SocketSignal,
  type SmallContact,
  pinSignals,
  type PlugKind,
  plugKinds,
  standardPlugKinds,
  comesApart,
  leftBeside,
  type LeftPiece,
  plugServes,
  type SocketKind,
  socketKinds,
  socketTakes,
  standardInletKinds,
} from './connectors.ts';
export {
  type Correction,
  corrections,
  leadAmps,
  lowestMainsVolts,
  type MainsInlet,
  mainsInlets,
  type MainsSelector,
  mainsSelectors,
  selectorIsWrong,
  powerFactor,
  type Protection,
  protectionNames,
} from './mains.ts';
