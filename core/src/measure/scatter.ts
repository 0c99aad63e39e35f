import { railBand, type Guide, type RailName } from '../standards/index.ts';
import type { Instrument } from './instrument.ts';
import { studentQuantile } from './student.ts';

/** How far single readings lie about their mean: a standard deviation, and how well it is known. */
export interface Scatter {
  readonly deviation: number;
  readonly degrees: number;
}

/**
 * What a reading scatters is taken for granted until repeats show it: this share of the rail's nominal (20 mV on +12
 * V), or the rounding to the meter's last digit where that is more (bench practice: what a hand-held meter shows of a
 * loaded rail without averaging).
 */
export const assumedScatterShare = 0.0017;
/**
 * The same for times, in milliseconds (bench practice): starts differ; how long a supply holds out depends on where in
 * the mains' wave it was cut off, and it is the shortest that counts, which repeats show.
 */
export const assumedScatterMilliseconds = 5;
export const assumedHoldUpScatterMilliseconds = 1;
/** The same for ripple, as a share of its limit (bench practice). */
export const assumedRippleScatterShare = 0.03;
/** The assumption weighs as much as so many degrees of freedom: repeats outweigh it from the fifth on. */
export const assumedDegrees = 4;

/** Deviation that rounding to the last digit gives, in volts: digit / √12 of the range that holds the figure. */
export function roundingVolts(instrument: Instrument, volts: number): number {
  const range = instrument.ranges
    .filter(({ fullScaleVolts }) => fullScaleVolts >= Math.abs(volts))
    .sort((a, b) => a.fullScaleVolts - b.fullScaleVolts)[0];
  return (range?.digitVolts ?? 0) / Math.sqrt(12);
}

/** The scatter that is taken for granted for this meter on this rail, in volts. */
export function assumedScatterVolts(instrument: Instrument, rail: RailName, guide: Guide): number {
  const { nominal } = railBand(rail, guide);
  return Math.max(assumedScatterShare * Math.abs(nominal), roundingVolts(instrument, nominal));
}

/**
 * The scatter from repeats and from what is taken for granted together: the variances weighed by their degrees of
 * freedom (scaled inverse chi-squared prior; Gelman and others, Bayesian Data Analysis, 2.6).
 * @param shown deviation of the repeats and their degrees of freedom; null with a single reading
 */
export function scatterOf(assumed: number, shown: Scatter | null): Scatter {
  if (shown === null) return { deviation: assumed, degrees: assumedDegrees };
  const degrees = assumedDegrees + shown.degrees;
  return {
    deviation: Math.sqrt((assumedDegrees * assumed ** 2 + shown.degrees * shown.deviation ** 2) / degrees),
    degrees,
  };
}

const quantiles = new Map<number, number>();

/** Half width at 95 % of the mean of so many readings that scatter so, by Student's law. */
export function scatterHalfWidth({ deviation, degrees }: Scatter, count: number): number {
  let factor = quantiles.get(degrees);
  if (factor === undefined) quantiles.set(degrees, (factor = studentQuantile(0.975, degrees)));
  return (factor * deviation) / Math.sqrt(count);
}
