import { railBand, type RailName } from '../standards/index.ts';

/** A figure that stood still long enough to be written down. */
export interface Held {
  readonly meanVolts: number;
  readonly spreadVolts: number;
  readonly count: number;
}

/** Values that have to stand still together. */
export const holdCount = 12;
/** How still: the deviation stays under this share of nominal (bench practice). */
const holdShare = 0.003;
/** A probe that hangs in the air shows less than this share of nominal. */
const touchingShare = 0.2;

/**
 * The held figure once the last values stand still on the rail, else null. A probe in the air does not hold.
 * @param values the latest last
 */
export function autoHold(rail: RailName, values: readonly number[]): Held | null {
  const last = values.slice(-holdCount);
  if (last.length < holdCount) return null;
  const nominal = Math.abs(railBand(rail, '2.x').nominal);
  const meanVolts = last.reduce((sum, value) => sum + value, 0) / last.length;
  const spreadVolts = Math.sqrt(last.reduce((sum, value) => sum + (value - meanVolts) ** 2, 0) / (last.length - 1));
  return spreadVolts <= holdShare * nominal && Math.abs(meanVolts) >= touchingShare * nominal
    ? { meanVolts, spreadVolts, count: last.length }
    : null;
}

/** A load sweep: currents one after the other, each held for a while. */
export interface SweepPlan {
  readonly rail: RailName;
  readonly amps: readonly number[];
  readonly dwellSeconds: number;
  /** It ends by itself outside these. */
  readonly lowestVolts: number;
  readonly highestVolts: number;
  readonly hottestCelsius: number;
}

export const mostSweepSteps = 40;
/** Past its band by this share of nominal a rail is far out, and the sweep ends (bench practice). */
const farShare = 0.06;

/** Evenly spaced currents from one to another, both included. @throws RangeError when steps is not 2 to `mostSweepSteps` */
export function sweepSteps(fromAmps: number, toAmps: number, steps: number): number[] {
  if (!Number.isInteger(steps) || steps < 2 || steps > mostSweepSteps)
    throw new RangeError(`steps must be 2 to ${mostSweepSteps}`);
  return Array.from(
    { length: steps },
    (_, index) => Math.round((fromAmps + ((toAmps - fromAmps) * index) / (steps - 1)) * 1000) / 1000,
  );
}

/** Where a sweep ends by itself: a little past the rail's band. */
export function sweepLimits(rail: RailName): { readonly lowestVolts: number; readonly highestVolts: number } {
  const { lower, upper, nominal } = railBand(rail, '2.x');
  return { lowestVolts: lower - farShare * Math.abs(nominal), highestVolts: upper + farShare * Math.abs(nominal) };
}

export type SweepStop = 'rail-low' | 'rail-high' | 'too-hot';

/** Whether a sweep must end now, and why. */
export function sweepMustStop(plan: SweepPlan, volts: number, celsius: number | null): SweepStop | null {
  if (volts < plan.lowestVolts) return 'rail-low';
  if (volts > plan.highestVolts) return 'rail-high';
  return celsius !== null && celsius > plan.hottestCelsius ? 'too-hot' : null;
}
