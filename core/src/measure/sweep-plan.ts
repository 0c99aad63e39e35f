import { railBand, type RailName } from '../standards/index.ts';

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

/**
 * Evenly spaced currents from one to another, both included. @throws RangeError when steps is not 2 to `mostSweepSteps`
 */
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

/** One look at a rail under load, and at the load's own temperature where it tells one. */
export interface SweepLook {
  readonly volts: number;
  readonly celsius: number | null;
}

/** What one look gives reason to stop for; by itself it ends nothing. */
function alarmOf(plan: SweepPlan, { volts, celsius }: SweepLook): SweepStop | null {
  if (volts < plan.lowestVolts) return 'rail-low';
  if (volts > plan.highestVolts) return 'rail-high';
  return celsius !== null && celsius > plan.hottestCelsius ? 'too-hot' : null;
}

/** What was seen last in a sweep: an alarm that the next look confirms or clears. */
export interface SweepWatch {
  readonly alarm: SweepStop | null;
  /** The sweep must end now, because two looks one after the other gave the same reason. */
  readonly stop: SweepStop | null;
}
export const calmSweep: SweepWatch = { alarm: null, stop: null };

/**
 * Judges one look after another. No single look ends a sweep, since a meter may be settling or a contact may have
 * moved; the next look, taken at once, confirms a rail that is far out or a load that is too hot.
 */
export function watchSweep(before: SweepWatch, plan: SweepPlan, look: SweepLook): SweepWatch {
  const alarm = alarmOf(plan, look);
  return { alarm, stop: alarm !== null && alarm === before.alarm ? alarm : null };
}
