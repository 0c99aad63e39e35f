import { conductorAmps, limits, type CableFamily } from '../standards/index.ts';
import type { InletToServe, KitCable } from './kit.ts';

/** Amps on each voltage. */
export interface Carried {
  readonly amps12: number;
  readonly amps5: number;
  readonly amps33: number;
}

export const perVoltage = ['amps12', 'amps5', 'amps33'] as const satisfies readonly (keyof Carried)[];

/** Sums of tenths may come out a hair above a limit that they meet exactly. */
export const rounding = 1e-9;

/** Amps on all voltages together, by which evenness is judged. */
export const loadOf = ({ amps12, amps5, amps33 }: Carried): number => amps12 + amps5 + amps33;

export const isGraphics = (family: CableFamily): boolean => family === 'card' || family === 'card-16';

type Load = Pick<InletToServe, 'amps12' | 'amps5' | 'amps33' | 'startAmps12' | 'startAmps5'>;

/**
 * What inlets on one cable draw together. Where drives start one after the other, the largest start counts once for the
 * whole cable; where they start together, each inlet's amps hold its start already.
 */
export function carriedBy(inlets: readonly (Load | null)[]): Carried {
  let [amps12, amps5, amps33, start12, start5] = [0, 0, 0, 0, 0];
  for (const inlet of inlets) {
    if (inlet === null) continue;
    amps12 += inlet.amps12;
    amps5 += inlet.amps5;
    amps33 += inlet.amps33;
    start12 = Math.max(start12, inlet.startAmps12 ?? 0);
    start5 = Math.max(start5, inlet.startAmps5 ?? 0);
  }
  return { amps12: amps12 + start12, amps5: amps5 + start5, amps33 };
}

/**
 * Amps per voltage that a whole chain carries: one wire each, and no more than a chain of the usual gauge (bench
 * practice).
 */
export function chainAmps(gauge: KitCable['gauge']): number {
  return Math.min(limits.driveChainAmps, conductorAmps[gauge]);
}

/**
 * How many wires of a cable carry each voltage: those of its largest plug, since plugs of one cable share its wires.
 */
function wiresOf({ family, plugs }: Pick<KitCable, 'family' | 'plugs'>): Carried {
  switch (family) {
    case 'cpu':
      return { amps12: plugs.every(({ kind }) => kind === 'cpu-4') ? 2 : 4, amps5: 0, amps33: 0 };
    case 'card':
      return { amps12: 3, amps5: 0, amps33: 0 };
    case 'card-16':
      return { amps12: 6, amps5: 0, amps33: 0 };
    case 'main':
      return { amps12: 2, amps5: 5, amps33: 4 };
    case 'drive':
      return { amps12: 1, amps5: 1, amps33: 1 };
  }
}

/**
 * Amps per voltage that a cable may carry in all: its wires by gauge, for a 16-pin cable no more than the watts it is
 * coded for.
 */
export function cableLimits(cable: Pick<KitCable, 'family' | 'plugs' | 'gauge' | 'codedWatts'>): Carried {
  const wires = wiresOf(cable);
  const each = conductorAmps[cable.gauge];
  const by = (key: keyof Carried, most = Infinity) => Math.min(wires[key] * each, most);
  switch (cable.family) {
    // Its contacts sit on the board: what they carry is told of the machine, whatever supply is fitted.
    case 'main':
      return { amps12: by('amps12'), amps5: by('amps5'), amps33: by('amps33') };
    case 'card-16':
      return { amps12: by('amps12', (cable.codedWatts ?? Infinity) / 12), amps5: 0, amps33: 0 };
    case 'cpu':
    case 'card':
      return { amps12: by('amps12'), amps5: 0, amps33: 0 };
    case 'drive': {
      const amps = chainAmps(cable.gauge);
      return { amps12: amps, amps5: amps, amps33: amps };
    }
  }
}

const limitsOf = new WeakMap<object, Carried>();

/** Does a cable carry more than its wires, contacts or code allow? */
export function isOverloaded(cable: Parameters<typeof cableLimits>[0], carried: Carried): boolean {
  let most = limitsOf.get(cable);
  if (most === undefined) {
    most = cableLimits(cable);
    limitsOf.set(cable, most);
  }
  return (
    carried.amps12 > most.amps12 + rounding ||
    carried.amps5 > most.amps5 + rounding ||
    carried.amps33 > most.amps33 + rounding
  );
}

/** Amps on +12 that a cable may carry in all. */
export function cableAmps12(cable: Parameters<typeof cableLimits>[0]): number {
  return cableLimits(cable).amps12;
}

/** Cables of a kind whose number costs nothing: where drives hang on more chains, a fault takes fewer of them. */
export function spreadsFreely(family: CableFamily, cable: Pick<KitCable, 'spare'>): boolean {
  return family === 'drive' && cable.spare !== true;
}
