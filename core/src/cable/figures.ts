import {
  conductorAmps,
  contactMilliohms,
  inletFace,
  wireMilliohmsPerMetre,
  type PinSignal,
} from '../standards/index.ts';
import { faceOfPlug } from './crossing.ts';
import type { Adapter, CableKit, InletToServe } from './kit.ts';
import type { CablePlan } from './plan.ts';
import { chainAmps } from './carried.ts';

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

/** How many pins of a plug carry this signal; a sense pin is no way back for current. */
function pinsWith(plugKind: keyof typeof faceOfPlug, signal: PinSignal): number {
  return inletFace[faceOfPlug[plugKind]].rows.flat().filter((pin) => pin.signal === signal).length;
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
  const legsOf = (adapterId: string | null) =>
    adapterId === null ? 1 : (adapters.find((adapter) => adapter.id === adapterId)?.legs ?? 1);
  const warm = 1 + 0.00393 * (celsius - 20);
  return plan.cables.map((cable): CableFigures => {
    const piece = kit.cables.find((item) => item.id === cable.kitCableId)!;
    const ohmsPerMillimetre = (wireMilliohmsPerMetre[piece.gauge] * warm) / 1e6;
    const contactOhms = contactMilliohms.usual / 1000;
    const items = plan.assignments
      .filter((item) => item.cableCode === cable.code)
      .sort(
        (a, b) =>
          piece.plugs[a.plugIndex]!.millimetres - piece.plugs[b.plugIndex]!.millimetres || a.plugIndex - b.plugIndex,
      );
    const loadOf = (item: (typeof items)[number], key: 'amps12' | 'amps5' | 'amps33') =>
      inletOf.get(item.inletId)![key] / legsOf(item.adapterId);
    const total = (key: 'amps12' | 'amps5' | 'amps33') => items.reduce((sum, item) => sum + loadOf(item, key), 0);
    const chain = piece.family === 'drive';
    const wiresOf = (signal: PinSignal) =>
      chain ? (signal === 'G' ? 2 : 1) : Math.max(1, ...items.map((item) => pinsWith(item.plugKind, signal)));
    const fullest = rails
      .map(([rail, signal, key]) => ({ rail, signal, key, amps: total(key), each: total(key) / wiresOf(signal) }))
      .sort((a, b) => b.each - a.each)[0]!;
    const plugs = items.map((item): PlugFigures => {
      const own = rails
        .map(([rail, signal, key]) => ({
          rail,
          signal,
          key,
          pins: Math.max(1, pinsWith(item.plugKind, signal)),
          amps: loadOf(item, key),
        }))
        .sort((a, b) => b.amps / b.pins - a.amps / a.pins)[0]!;
      const grounds = Math.max(1, pinsWith(item.plugKind, 'G'));
      const all = rails.reduce((sum, [, , key]) => sum + loadOf(item, key), 0);
      let drop = 0;
      let from = 0;
      // Each stretch carries what every plug at or beyond its end takes.
      for (const stop of items) {
        const to = piece.plugs[stop.plugIndex]!.millimetres;
        const beyond = items.filter((other) => piece.plugs[other.plugIndex]!.millimetres >= to);
        const out = beyond.reduce((sum, other) => sum + loadOf(other, own.key), 0) / wiresOf(own.signal);
        const back =
          beyond.reduce((sum, other) => sum + rails.reduce((each, [, , key]) => each + loadOf(other, key), 0), 0) /
          wiresOf('G');
        drop += (to - from) * ohmsPerMillimetre * (out + back);
        from = to;
        if (stop === item) break;
      }
      const supplyEnd =
        contactOhms *
        (total(own.key) / wiresOf(own.signal) + rails.reduce((sum, [, , key]) => sum + total(key), 0) / wiresOf('G'));
      const deviceEnd = contactOhms * (own.amps / own.pins + all / grounds);
      const heat =
        contactOhms *
        (rails.reduce((sum, [, signal, key]) => {
          const pins = pinsWith(item.plugKind, signal);
          return pins === 0 ? sum : sum + loadOf(item, key) ** 2 / pins;
        }, 0) +
          all ** 2 / grounds);
      return {
        inletId: item.inletId,
        conductorAmps: own.amps / own.pins,
        rail: own.amps > 0 ? own.rail : null,
        dropVolts: own.amps > 0 ? drop + supplyEnd + deviceEnd : 0,
        plugHeatWatts: heat,
        slackMillimetres: item.slackMillimetres,
      };
    });
    return {
      code: cable.code,
      conductorAmps: fullest.each,
      conductors: wiresOf(fullest.signal),
      rail: fullest.amps > 0 ? fullest.rail : null,
      mostAmps: chain ? chainAmps(piece.gauge) : conductorAmps[piece.gauge],
      plugs,
    };
  });
}
