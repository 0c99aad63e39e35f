import type { RailName } from '../standards/index.ts';
import { normal, type Random } from './random.ts';

/** A rail as a voltage behind a resistance, with noise and what warming does to it. */
export interface SimulatedRail {
  readonly openVolts: number;
  readonly ohms: number;
  /** Deviation of the noise, ripple as a meter sees it included, in volts. */
  readonly noiseVolts: number;
  /** What it loses once warm, in volts, and how long warming takes, in seconds. */
  readonly warmVolts: number;
  readonly warmSeconds: number;
}

/** A supply with its faults. */
export interface SimulatedSupply {
  readonly name: string;
  readonly rails: Readonly<Partial<Record<RailName, SimulatedRail>>>;
  /** What +5 gains for each amp on +12: group regulation. */
  readonly crossVoltsPerAmp: number;
  readonly powerGoodMilliseconds: number;
  /** Over this current on +12 it switches off; null when it does not. */
  readonly tripAmps: number | null;
  /** Now and then +12 drops by `volts` for `lasts` seconds, every `every` seconds. */
  readonly drops: { readonly every: number; readonly lasts: number; readonly volts: number } | null;
  /** Its fan stands still: it heats by the load and switches off when too hot. */
  readonly fanStopped: boolean;
}

const rail = (openVolts: number, ohms: number, noiseVolts: number, warmVolts = 0): SimulatedRail => ({
  openVolts,
  ohms,
  noiseVolts,
  warmVolts,
  warmSeconds: 240,
});
const others = { '+3.3': rail(3.31, 0.004, 0.002), '-12': rail(-11.9, 0.1, 0.01), '+5sb': rail(5.04, 0.02, 0.003) };

/** Supplies for the stand-in instruments, by the fault they show. */
export const simulatedSupplies = {
  healthy: {
    name: 'healthy',
    rails: { '+12': rail(12.06, 0.0045, 0.004), '+5': rail(5.03, 0.004, 0.003), ...others },
    crossVoltsPerAmp: 0,
    powerGoodMilliseconds: 230,
    tripAmps: 60,
    drops: null,
    fanStopped: false,
  },
  weak: {
    name: 'weak',
    rails: { '+12': rail(11.86, 0.021, 0.022, 0.06), '+5': rail(5.06, 0.005, 0.006), ...others },
    crossVoltsPerAmp: 0.0018,
    powerGoodMilliseconds: 310,
    tripAmps: 45,
    drops: null,
    fanStopped: false,
  },
  undersized: {
    name: 'undersized',
    rails: { '+12': rail(12.02, 0.006, 0.006), '+5': rail(5.02, 0.005, 0.004), ...others },
    crossVoltsPerAmp: 0,
    powerGoodMilliseconds: 260,
    tripAmps: 24,
    drops: null,
    fanStopped: false,
  },
  intermittent: {
    name: 'intermittent',
    rails: { '+12': rail(12.01, 0.006, 0.008), '+5': rail(5.02, 0.005, 0.004), ...others },
    crossVoltsPerAmp: 0,
    powerGoodMilliseconds: 280,
    tripAmps: 50,
    drops: { every: 7, lasts: 0.4, volts: 0.9 },
    fanStopped: false,
  },
  hot: {
    name: 'hot',
    rails: { '+12': rail(12.0, 0.007, 0.006, 0.1), '+5': rail(5.02, 0.005, 0.004, 0.03), ...others },
    crossVoltsPerAmp: 0,
    powerGoodMilliseconds: 270,
    tripAmps: 50,
    drops: null,
    fanStopped: true,
  },
  late: {
    name: 'late',
    rails: { '+12': rail(12.02, 0.006, 0.01), '+5': rail(5.02, 0.005, 0.004), ...others },
    crossVoltsPerAmp: 0,
    powerGoodMilliseconds: 690,
    tripAmps: 50,
    drops: null,
    fanStopped: false,
  },
} as const satisfies Readonly<Record<string, SimulatedSupply>>;
export type SimulatedSupplyName = keyof typeof simulatedSupplies;

/** A supply that runs: how long it has, what it carries, how hot it is. */
export interface RunningSupply {
  readonly supply: SimulatedSupply;
  readonly seconds: number;
  readonly amps: number;
  readonly celsius: number;
  readonly off: boolean;
}

const roomCelsius = 24;
/** Above this a supply without air switches off (invented, of the usual size). */
const tooHotCelsius = 95;

export const startSupply = (supply: SimulatedSupply): RunningSupply => ({
  supply,
  seconds: 0,
  amps: 0,
  celsius: roomCelsius,
  off: false,
});

/** The same supply some seconds later under a load on +12. Once off it stays off until it is started again. */
export function runSupply(running: RunningSupply, seconds: number, amps: number): RunningSupply {
  const { supply } = running;
  const settled = roomCelsius + amps * (supply.fanStopped ? 3.2 : 0.6);
  const pace = supply.fanStopped ? 0.02 : 0.008;
  const celsius = settled + (running.celsius - settled) * Math.exp(-pace * seconds);
  const off =
    running.off ||
    (supply.tripAmps !== null && amps > supply.tripAmps) ||
    (supply.fanStopped && celsius > tooHotCelsius);
  return { supply, seconds: running.seconds + seconds, amps: off ? 0 : amps, celsius, off };
}

/** What a rail truly shows at this moment, noise included, in volts; 0 once off, except for standby. */
export function railVolts(running: RunningSupply, name: RailName, random: Random): number {
  const { supply, seconds, amps } = running;
  const line = supply.rails[name];
  if (line === undefined || (running.off && name !== '+5sb')) return 0;
  const load = name === '+12' ? amps : name === '+5' ? 3 : 1;
  const cross = name === '+5' ? supply.crossVoltsPerAmp * amps : 0;
  const warm = line.warmVolts * (1 - Math.exp(-seconds / line.warmSeconds));
  const { drops } = supply;
  const drop =
    name === '+12' && drops !== null && seconds % drops.every < drops.lasts && seconds > drops.every ? drops.volts : 0;
  return line.openVolts - line.ohms * load + cross - warm - drop + line.noiseVolts * normal(random);
}
