import { boundToBe } from '../bound-to-be.ts';
import {
  conductorAmps,
  contactMilliohms,
  inletFace,
  wireMilliohmsPerMetre,
  type PinSignal,
} from '../standards/index.ts';
import { faceOfPlug } from './crossing.ts';
import type { Adapter, CableKit, InletToServe, KitCable } from './kit.ts';
import type { Assignment, CablePlan } from './plan.ts';
import { chainAmps, loadOf, type Carried } from './carried.ts';

const rails = [
  ['+12', '12', 'amps12'],
  ['+5', '5', 'amps5'],
  ['+3.3', '3.3', 'amps33'],
] as const;
export type CarriedRail = (typeof rails)[number][0];

/** What one plug of a planned cable carries, and what that costs on the way. */
export interface PlugFigures {
  readonly inletId: string;
  /** Amps in each of its conductors of the fullest voltage. */
  readonly conductorAmps: number;
  readonly rail: CarriedRail | null;
  /** Volts lost between supply and device on that voltage, out and return, contacts included. */
  readonly dropVolts: number;
  /** Watts turned to heat in the contacts of this plug. */
  readonly plugHeatWatts: number;
  readonly slackMillimetres: number;
}

/** What a planned cable carries. */
export interface CableFigures {
  readonly code: string;
  /** The conductor that carries most, in amps, on the stretch next to the supply, and how many share that current. */
  readonly conductorAmps: number;
  readonly conductors: number;
  readonly rail: CarriedRail | null;
  readonly mostAmps: number;
  readonly plugs: readonly PlugFigures[];
}

type Rail = (typeof rails)[number];
type Amps = keyof Carried;

/** How many pins of a plug carry this signal; a sense pin is no way back for current. */
function pinsWith(plugKind: keyof typeof faceOfPlug, signal: PinSignal): number {
  return inletFace[faceOfPlug[plugKind]].rows.flat().filter((pin) => pin.signal === signal).length;
}

/** One plug of a cable: how far it is from the supply and what its inlet takes. */
interface Stop {
  readonly item: Assignment;
  readonly millimetres: number;
  readonly amps: Carried;
  /** What all voltages bring, which goes back through the grounds. */
  readonly all: number;
}

/** A planned cable with its plugs in the order in which they are reached from the supply. */
interface Loaded {
  readonly piece: KitCable;
  readonly stops: readonly Stop[];
}

const isChain = ({ piece }: Loaded): boolean => piece.family === 'drive';

/** One conductor for each voltage and two grounds along a chain; elsewhere one for each pin. */
function wiresOf(loaded: Loaded, signal: PinSignal): number {
  if (isChain(loaded)) return signal === 'G' ? 2 : 1;
  return Math.max(1, ...loaded.stops.map(({ item }) => pinsWith(item.plugKind, signal)));
}

const sumOf = (stops: readonly Stop[], key: Amps): number => stops.reduce((sum, { amps }) => sum + amps[key], 0);
const allOf = (stops: readonly Stop[]): number => stops.reduce((sum, { all }) => sum + all, 0);

function loadedCable(
  kit: CableKit,
  inlets: ReadonlyMap<string, InletToServe>,
  legsOf: (adapterId: string | null) => number,
  items: readonly Assignment[],
  kitCableId: string,
): Loaded {
  const piece = boundToBe(
    kit.cables.find(({ id }) => id === kitCableId),
    `cable ${kitCableId}`,
  );
  const stops = items.map((item): Stop => {
    const { amps12, amps5, amps33 } = boundToBe(inlets.get(item.inletId), `inlet ${item.inletId}`);
    const legs = legsOf(item.adapterId);
    const amps = { amps12: amps12 / legs, amps5: amps5 / legs, amps33: amps33 / legs };
    const { millimetres } = boundToBe(piece.plugs[item.plugIndex], `plug ${item.plugIndex} of ${piece.id}`);
    return { item, millimetres, amps, all: loadOf(amps) };
  });
  return {
    piece,
    stops: stops.sort((a, b) => a.millimetres - b.millimetres || a.item.plugIndex - b.item.plugIndex),
  };
}

/** The voltage that has most amps in each of its conductors. */
function fullestRail(of: (rail: Rail) => { readonly amps: number; readonly conductors: number }) {
  const [fullest] = rails
    .map((rail) => ({ rail, ...of(rail) }))
    .map((one) => ({ ...one, each: one.amps / one.conductors }))
    .sort((a, b) => b.each - a.each);
  return boundToBe(fullest, 'voltage');
}

/**
 * Volts lost in the wire from the supply to a plug and back: each stretch carries what every plug at or beyond its end
 * takes.
 */
function lostOnTheWay(loaded: Loaded, until: Stop, [, signal, key]: Rail, ohmsPerMillimetre: number): number {
  let drop = 0;
  let from = 0;
  for (const stop of loaded.stops) {
    const beyond = loaded.stops.filter(({ millimetres }) => millimetres >= stop.millimetres);
    const out = sumOf(beyond, key) / wiresOf(loaded, signal);
    const back = allOf(beyond) / wiresOf(loaded, 'G');
    drop += (stop.millimetres - from) * ohmsPerMillimetre * (out + back);
    from = stop.millimetres;
    if (stop === until) break;
  }
  return drop;
}

const contactOhms = contactMilliohms.usual / 1000;

/** Watts turned to heat in the contacts of a plug, grounds among them. */
function heatIn({ item, amps, all }: Stop): number {
  const squares = rails.reduce((sum, [, signal, key]) => {
    const pins = pinsWith(item.plugKind, signal);
    return pins === 0 ? sum : sum + amps[key] ** 2 / pins;
  }, 0);
  return contactOhms * (squares + all ** 2 / Math.max(1, pinsWith(item.plugKind, 'G')));
}

function plugFigures(loaded: Loaded, stop: Stop, ohmsPerMillimetre: number): PlugFigures {
  const { item, amps, all } = stop;
  const pinsOf = (signal: PinSignal) => Math.max(1, pinsWith(item.plugKind, signal));
  const own = fullestRail(([, signal, key]) => ({ amps: amps[key], conductors: pinsOf(signal) }));
  const [name, signal, key] = own.rail;
  const supplyEnd = sumOf(loaded.stops, key) / wiresOf(loaded, signal) + allOf(loaded.stops) / wiresOf(loaded, 'G');
  const deviceEnd = own.each + all / pinsOf('G');
  const drop = lostOnTheWay(loaded, stop, own.rail, ohmsPerMillimetre) + contactOhms * (supplyEnd + deviceEnd);
  return {
    inletId: item.inletId,
    conductorAmps: own.each,
    rail: own.amps > 0 ? name : null,
    dropVolts: own.amps > 0 ? drop : 0,
    plugHeatWatts: heatIn(stop),
    slackMillimetres: item.slackMillimetres,
  };
}

/**
 * Current in each conductor, the voltage lost at the device and the heat in its contacts, for what the inlets are said
 * to carry (lasting load, drives at spin-up). A chain is taken as one conductor for each voltage and two grounds along
 * its length; other cables as one conductor for each pin. Out and return by wire resistance at the given temperature,
 * and two contacts each way; grounds carry what all voltages bring (Ohm's law on the stretches of the cable,
 * Kirchhoff's law at the plugs).
 * @param celsius temperature of the wire; its resistance grows by 0.393 % a degree above 20
 */
export function cableFigures(
  kit: CableKit,
  inlets: readonly InletToServe[],
  plan: CablePlan,
  adapters: readonly Adapter[] = [],
  celsius = 40,
): CableFigures[] {
  const inletOf = new Map(inlets.map((inlet) => [inlet.id, inlet]));
  const legsOf = (adapterId: string | null) => adapters.find(({ id }) => id === adapterId)?.legs ?? 1;
  const warm = 1 + 0.00393 * (celsius - 20);
  return plan.cables.map(({ code, kitCableId }): CableFigures => {
    const items = plan.assignments.filter(({ cableCode }) => cableCode === code);
    const loaded = loadedCable(kit, inletOf, legsOf, items, kitCableId);
    const { gauge } = loaded.piece;
    const ohmsPerMillimetre = (wireMilliohmsPerMetre[gauge] * warm) / 1e6;
    const fullest = fullestRail(([, signal, key]) => ({
      amps: sumOf(loaded.stops, key),
      conductors: wiresOf(loaded, signal),
    }));
    return {
      code,
      conductorAmps: fullest.each,
      conductors: fullest.conductors,
      rail: fullest.amps > 0 ? fullest.rail[0] : null,
      mostAmps: isChain(loaded) ? chainAmps(gauge) : conductorAmps[gauge],
      plugs: loaded.stops.map((stop) => plugFigures(loaded, stop, ohmsPerMillimetre)),
    };
  });
}
