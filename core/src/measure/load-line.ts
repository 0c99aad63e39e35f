import { railBand, type Guide, type RailName } from '../standards/index.ts';
import { limitOfErrorVolts, type Instrument } from './instrument.ts';
import { combinedHalfWidth } from './student.ts';

/** One reading with the current on its rail. */
export interface LoadPoint {
  readonly amps: number;
  readonly volts: number;
  readonly instrumentId: string;
  /** The current was not measured but follows from the parts. */
  readonly estimated: boolean;
}

export interface Interval {
  readonly low: number;
  readonly high: number;
}

/** A rail as a voltage behind a resistance: volts = openVolts - resistanceOhms x amps. */
export interface LoadLine {
  readonly rail: RailName;
  readonly points: readonly LoadPoint[];
  readonly openVolts: number;
  readonly resistanceOhms: number;
  /** At 95 %; null with only two readings, which always lie on a line. */
  readonly resistanceInterval: Interval | null;
  /** Standard deviation of the readings about the line in volts; null with only two. */
  readonly scatterVolts: number | null;
  /** Some current is estimated from the parts, not measured. */
  readonly estimated: boolean;
  /** Mean of the currents and their sum of squares about it: what a forecast needs. */
  readonly meanAmps: number;
  readonly spreadAmpsSquared: number;
  /** Limit of error of the meter at the mean, in volts: off all the time in the same direction. */
  readonly meterErrorVolts: number;
  /** Deviation that rounding to the last digit gives, in volts. */
  readonly roundingVolts: number;
}

/** Standard uncertainty of a current that follows from the parts, as a share of it (bench practice: parts at idle and at work spread by about this). */
export const estimatedAmpsShare = 0.15;
/** With two readings nothing is known of their scatter: this share of nominal is taken for it (bench practice). */
export const assumedScatterShare = 0.001;

/** Currents closer than this are one load. */
const sameLoadAmps = 0.5;

/**
 * Standard deviation, in volts times weight, that the uncertainty of estimated currents gives to a weighted sum of
 * readings: each current's own uncertainty times the resistance (effective variance, Orear 1982).
 */
function currentDeviation(points: readonly LoadPoint[], slope: number, weights: readonly number[]): number {
  return Math.sqrt(
    points.reduce(
      (sum, point, index) =>
        sum + (point.estimated ? (weights[index]! * slope * estimatedAmpsShare * point.amps) ** 2 : 0),
      0,
    ),
  );
}

/** Beyond so many degrees of freedom Student's law is the normal one for every purpose here. */
const manyDegrees = 100;

/**
 * Half width at 95 % of scatter known to some degrees of freedom, of a further normal part, and of a uniform limit. Degrees
 * by Welch and Satterthwaite, rounded down; never narrower than without the further part, which that rule alone would
 * allow where very few readings scatter little.
 */
function halfOf(scatter: number, degrees: number, further: number, limit: number): number {
  const alone = combinedHalfWidth(scatter, degrees, limit);
  if (further === 0) return alone;
  const joined = Math.hypot(scatter, further);
  const effective = scatter === 0 ? Infinity : Math.floor(degrees * (joined / scatter) ** 4);
  return Math.max(alone, combinedHalfWidth(joined, effective > manyDegrees ? Infinity : effective, limit));
}

/**
 * Least squares line through a rail's readings by one instrument; null with fewer than two different loads.
 * Source: ordinary least squares; interval of the slope by Student's t with n - 2 degrees of freedom.
 * @param points of one rail; those of the instrument with most readings are used, since another meter is off differently
 */
export function fitLoadLine(
  rail: RailName,
  points: readonly LoadPoint[],
  instruments: readonly Instrument[],
): LoadLine | null {
  const counts = new Map<string, number>();
  for (const point of points) counts.set(point.instrumentId, (counts.get(point.instrumentId) ?? 0) + 1);
  const chosen = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
  const used = points.filter((point) => point.instrumentId === chosen);
  const instrument = instruments.find((candidate) => candidate.id === chosen);
  if (instrument === undefined || used.length < 2) return null;
  const n = used.length;
  const meanAmps = used.reduce((sum, point) => sum + point.amps, 0) / n;
  const meanVolts = used.reduce((sum, point) => sum + point.volts, 0) / n;
  if (Math.max(...used.map((point) => point.amps)) - Math.min(...used.map((point) => point.amps)) < sameLoadAmps)
    return null;
  const spread = used.reduce((sum, point) => sum + (point.amps - meanAmps) ** 2, 0);
  const slope = used.reduce((sum, point) => sum + (point.amps - meanAmps) * (point.volts - meanVolts), 0) / spread;
  const openVolts = meanVolts - slope * meanAmps;
  const scatter =
    n > 2
      ? Math.sqrt(used.reduce((sum, point) => sum + (point.volts - openVolts - slope * point.amps) ** 2, 0) / (n - 2))
      : null;
  const meterErrorVolts = limitOfErrorVolts(instrument, meanVolts) ?? 0;
  const digit =
    instrument.ranges
      .filter((range) => range.fullScaleVolts >= Math.abs(meanVolts))
      .sort((a, b) => a.fullScaleVolts - b.fullScaleVolts)[0]?.digitVolts ?? 0;
  const half =
    scatter === null
      ? null
      : halfOf(
          scatter / Math.sqrt(spread),
          n - 2,
          currentDeviation(
            used,
            slope,
            used.map((point) => (point.amps - meanAmps) / spread),
          ),
          0,
        );
  return {
    rail,
    points: used,
    openVolts,
    resistanceOhms: -slope,
    resistanceInterval: half === null ? null : { low: -slope - half, high: -slope + half },
    scatterVolts: scatter,
    estimated: used.some((point) => point.estimated),
    meanAmps,
    spreadAmpsSquared: spread,
    meterErrorVolts,
    roundingVolts: digit / Math.sqrt(12),
  };
}

/** What a rail will show at a load. */
export interface Forecast {
  readonly rail: RailName;
  readonly amps: number;
  readonly volts: number;
  /** Holds the true voltage in 95 of 100 cases, if the rail is a line and the meter within its error. */
  readonly interval: Interval;
  readonly lower: number;
  readonly upper: number;
  readonly word: 'will-pass' | 'will-fail' | 'cannot-tell';
}

/**
 * The voltage to expect at a load: the line's value, with the scatter of the readings, how far the load lies from those
 * measured, the uncertainty of currents that are estimated, and the meter's own error, all in one interval at 95 %. With
 * two readings their scatter is not known and `assumedScatterShare` stands for it.
 */
export function forecastAt(line: LoadLine, amps: number, guide: Guide): Forecast {
  const n = line.points.length;
  const volts = line.openVolts - line.resistanceOhms * amps;
  const spread = Math.sqrt(1 / n + (amps - line.meanAmps) ** 2 / line.spreadAmpsSquared);
  const { lower, upper, nominal } = railBand(line.rail, guide);
  const scatter = Math.max(line.scatterVolts ?? assumedScatterShare * Math.abs(nominal), line.roundingVolts);
  const weights = line.points.map(
    (point) => 1 / n + ((amps - line.meanAmps) * (point.amps - line.meanAmps)) / line.spreadAmpsSquared,
  );
  const half = halfOf(
    scatter * spread,
    line.scatterVolts === null ? Infinity : n - 2,
    currentDeviation(line.points, line.resistanceOhms, weights),
    line.meterErrorVolts,
  );
  const interval = { low: volts - half, high: volts + half };
  const word =
    interval.low >= lower && interval.high <= upper
      ? 'will-pass'
      : interval.high < lower || interval.low > upper
        ? 'will-fail'
        : 'cannot-tell';
  return { rail: line.rail, amps, volts, interval, lower, upper, word };
}

/** +5 rising while +12 sinks: a supply that regulates both together, pulled by a heavy +12 load. */
export interface CrossLoad {
  readonly twelveFallsVolts: number;
  readonly fiveRisesVolts: number;
}

/**
 * The cross-load effect between light load and work; null where it is not clearly seen: +12 falls by more than 1 % and +5
 * rises by more than 0.5 % of nominal (bench practice), both by the same instrument, whose error cancels.
 */
export function crossLoadOf(
  twelve: { readonly light: number; readonly work: number } | null,
  five: { readonly light: number; readonly work: number } | null,
): CrossLoad | null {
  if (twelve === null || five === null) return null;
  const twelveFallsVolts = twelve.light - twelve.work;
  const fiveRisesVolts = five.work - five.light;
  return twelveFallsVolts > 0.12 && fiveRisesVolts > 0.025 ? { twelveFallsVolts, fiveRisesVolts } : null;
}
