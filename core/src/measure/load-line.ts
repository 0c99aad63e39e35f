import { boundToBe } from '../bound-to-be.ts';
import { railBand, type Guide, type RailName } from '../standards/index.ts';
import { limitOfErrorVolts, type Instrument } from './instrument.ts';
import { assumedScatterVolts, scatterOf, type Scatter } from './scatter.ts';
import { combinedHalfWidth, studentQuantile } from './student.ts';

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

/** How a rail bends away from its line, as a second-order term that leaves the line's own two alone. */
export interface Bend {
  /** Volts per ampere squared. */
  readonly perAmpereSquared: number;
  /** The term at a current, in amperes squared: (x - m)² - tilt (x - m) - offset. */
  readonly tilt: number;
  readonly offset: number;
  /** Sum of the squares of the term over the readings. */
  readonly spread: number;
}

/**
 * A rail as a voltage behind a resistance: volts = openVolts - resistanceOhms x amps, and where it is seen to bend,
 * that.
 */
export interface LoadLine {
  readonly rail: RailName;
  readonly points: readonly LoadPoint[];
  readonly openVolts: number;
  readonly resistanceOhms: number;
  /** At 95 %; null with only two readings, which always lie on a line. */
  readonly resistanceInterval: Interval | null;
  /** Standard deviation of the readings about the line in volts; null with only two. */
  readonly scatterVolts: number | null;
  /** The scatter that counts: what is taken for granted, moved by what the readings show. */
  readonly scatter: Scatter;
  /** Null where the readings lie on a line as far as their scatter can tell. */
  readonly bend: Bend | null;
  /** Some current is estimated from the parts, not measured. */
  readonly estimated: boolean;
  /** Mean of the currents and their sum of squares about it: what a forecast needs. */
  readonly meanAmps: number;
  readonly spreadAmpsSquared: number;
  /** The highest load that was read. */
  readonly mostAmps: number;
  /** Limit of error of the meter at the mean, in volts: off all the time in the same direction. */
  readonly meterErrorVolts: number;
}

/**
 * Standard uncertainty of a current that follows from the parts, as a share of it (bench practice: parts at idle and at
 * work spread by about this).
 */
export const estimatedAmpsShare = 0.15;
/**
 * Standard uncertainty that all measured currents of a line share: the clamp or the load is off by one factor (bench
 * practice).
 */
export const sharedAmpsShare = 0.02;
/** Beyond the highest load that was read the resistance may be higher by this share of itself (bench practice). */
export const resistanceMayRise = 0.5;
/**
 * So far beyond the highest load, as a share of it, a rail may still be said to pass; nobody saw it fold back there.
 */
export const passesBeyond = 0.1;

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
        sum +
        (point.estimated ? (boundToBe(weights[index], 'weight') * slope * estimatedAmpsShare * point.amps) ** 2 : 0),
      0,
    ),
  );
}

/** Beyond so many degrees of freedom Student's law is the normal one for every purpose here. */
const manyDegrees = 100;

/**
 * Half width at 95 % of scatter known to some degrees of freedom, of a further normal part, and of a uniform limit.
 * Degrees by Welch and Satterthwaite, rounded down; never narrower than without the further part, which that rule alone
 * would allow where very few readings scatter little.
 */
function halfOf(scatter: number, degrees: number, further: number, limit: number): number {
  const alone = combinedHalfWidth(scatter, degrees, limit);
  if (further === 0) return alone;
  const joined = Math.hypot(scatter, further);
  const effective = scatter === 0 ? Infinity : Math.floor(degrees * (joined / scatter) ** 4);
  return Math.max(alone, combinedHalfWidth(joined, effective > manyDegrees ? Infinity : effective, limit));
}

const sum = <T>(items: readonly T[], of: (item: T) => number) => items.reduce((total, item) => total + of(item), 0);

const termOf = ({ tilt, offset }: Pick<Bend, 'tilt' | 'offset'>, fromMean: number) =>
  fromMean ** 2 - tilt * fromMean - offset;

/**
 * The second-order term where it is more than scatter at 95 %, and what the readings scatter about it; null where it is
 * not, or with fewer than three loads.
 */
function bendOf(
  points: readonly LoadPoint[],
  meanAmps: number,
  residual: (point: LoadPoint) => number,
  assumed: number,
): { readonly bend: Bend; readonly scatter: Scatter } | null {
  const n = points.length;
  const loads = points
    .map((point) => point.amps)
    .sort((a, b) => a - b)
    .filter((amps, index, all) => index === 0 || amps - (all[index - 1] ?? -Infinity) > sameLoadAmps);
  if (loads.length < 3) return null;
  const from = (point: LoadPoint) => point.amps - meanAmps;
  const tilt = sum(points, (point) => from(point) ** 3) / sum(points, (point) => from(point) ** 2);
  const offset = sum(points, (point) => from(point) ** 2) / n;
  const spread = sum(points, (point) => termOf({ tilt, offset }, from(point)) ** 2);
  if (spread === 0) return null;
  const perAmpereSquared = sum(points, (point) => termOf({ tilt, offset }, from(point)) * residual(point)) / spread;
  const bend = { perAmpereSquared, tilt, offset, spread };
  const squares = sum(points, (point) => (residual(point) - perAmpereSquared * termOf(bend, from(point))) ** 2);
  const scatter = scatterOf(assumed, n > 3 ? { deviation: Math.sqrt(squares / (n - 3)), degrees: n - 3 } : null);
  const least = (studentQuantile(0.975, scatter.degrees) * scatter.deviation) / Math.sqrt(spread);
  return Math.abs(perAmpereSquared) > least ? { bend, scatter } : null;
}

/**
 * Least squares line through a rail's readings by one instrument; null with fewer than two different loads.
 * Source: ordinary least squares; interval of the slope by Student's t with n - 2 degrees of freedom, those of the
 * scatter that is taken for granted added; bend by orthogonal polynomials.
 * @param points of one rail; those of the instrument with most readings are used, since another meter is off
 *   differently
 */
export function fitLoadLine(
  rail: RailName,
  points: readonly LoadPoint[],
  instruments: readonly Instrument[],
  guide: Guide,
): LoadLine | null {
  const counts = new Map<string, number>();
  for (const point of points) counts.set(point.instrumentId, (counts.get(point.instrumentId) ?? 0) + 1);
  const chosen = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
  const used = points.filter((point) => point.instrumentId === chosen);
  const instrument = instruments.find((candidate) => candidate.id === chosen);
  if (instrument === undefined || used.length < 2) return null;
  const n = used.length;
  const amps = used.map((point) => point.amps);
  const mostAmps = Math.max(...amps);
  if (mostAmps - Math.min(...amps) < sameLoadAmps) return null;
  const meanAmps = sum(used, (point) => point.amps) / n;
  const meanVolts = sum(used, (point) => point.volts) / n;
  const spread = sum(used, (point) => (point.amps - meanAmps) ** 2);
  const slope = sum(used, (point) => (point.amps - meanAmps) * (point.volts - meanVolts)) / spread;
  const openVolts = meanVolts - slope * meanAmps;
  const residual = (point: LoadPoint) => point.volts - openVolts - slope * point.amps;
  const scatterVolts = n > 2 ? Math.sqrt(sum(used, (point) => residual(point) ** 2) / (n - 2)) : null;
  const assumed = assumedScatterVolts(instrument, rail, guide);
  const straight = scatterOf(assumed, scatterVolts === null ? null : { deviation: scatterVolts, degrees: n - 2 });
  const bent = bendOf(used, meanAmps, residual, assumed);
  const scatter = bent?.scatter ?? straight;
  const half =
    scatterVolts === null
      ? null
      : halfOf(
          scatter.deviation / Math.sqrt(spread),
          scatter.degrees,
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
    scatterVolts,
    scatter,
    bend: bent?.bend ?? null,
    estimated: used.some((point) => point.estimated),
    meanAmps,
    spreadAmpsSquared: spread,
    mostAmps,
    meterErrorVolts: limitOfErrorVolts(instrument, meanVolts) ?? 0,
  };
}

/** The line's voltage at a current, with its bend where it has one. */
export function voltsAt(line: LoadLine, amps: number): number {
  const straight = line.openVolts - line.resistanceOhms * amps;
  return line.bend === null
    ? straight
    : straight + line.bend.perAmpereSquared * termOf(line.bend, amps - line.meanAmps);
}

/** What a rail will show at a load. */
export interface Forecast {
  readonly rail: RailName;
  readonly amps: number;
  readonly volts: number;
  /** Holds the true voltage in 95 of 100 cases, if the rail keeps its way and the meter is within its error. */
  readonly interval: Interval;
  readonly lower: number;
  readonly upper: number;
  readonly word: 'will-pass' | 'will-fail' | 'cannot-tell';
  /** It lies beyond the highest load that was read, which is this one; null inside. */
  readonly beyondAmps: number | null;
  /** The rail was seen to bend away from its line. */
  readonly bends: boolean;
  /** The load to read next, which would tell most; null where nothing is left open. */
  readonly nextAmps: number | null;
}

/**
 * The next load is not taken much higher than the highest that was read, so that nothing is driven blindly into its
 * limit.
 */
const nextLoadTimes = 1.5;

/**
 * The voltage to expect at a load: the line's value, with the scatter of the readings, how far the load lies from those
 * measured, the uncertainty of the currents, and the meter's own error, all in one interval at 95 %. Beyond the highest
 * load that was read it widens further downwards by `resistanceMayRise`, and beyond `passesBeyond` of it, or on a rail
 * that bends, nothing is said to pass: a supply that folds back there looks straight until it does.
 */
export function forecastAt(line: LoadLine, amps: number, guide: Guide): Forecast {
  const n = line.points.length;
  const volts = voltsAt(line, amps);
  const fromMean = amps - line.meanAmps;
  const bending = line.bend === null ? 0 : termOf(line.bend, fromMean) ** 2 / line.bend.spread;
  const spread = Math.sqrt(1 / n + fromMean ** 2 / line.spreadAmpsSquared + bending);
  const { lower, upper } = railBand(line.rail, guide);
  const weights = line.points.map(
    (point) => 1 / n + (fromMean * (point.amps - line.meanAmps)) / line.spreadAmpsSquared,
  );
  const own = currentDeviation(line.points, line.resistanceOhms, weights);
  const shared = line.points.some((point) => !point.estimated) ? sharedAmpsShare * line.resistanceOhms * amps : 0;
  const half = halfOf(
    line.scatter.deviation * spread,
    line.scatter.degrees,
    Math.hypot(own, shared),
    line.meterErrorVolts,
  );
  const further = Math.max(0, amps - line.mostAmps);
  const mayFall = resistanceMayRise * Math.abs(line.resistanceOhms) * further;
  const interval = { low: volts - half - mayFall, high: volts + half };
  const unseen = further > (line.bend === null ? passesBeyond * line.mostAmps : 0);
  const word =
    interval.high < lower || interval.low > upper
      ? 'will-fail'
      : interval.low >= lower && interval.high <= upper && !unseen
        ? 'will-pass'
        : 'cannot-tell';
  return {
    rail: line.rail,
    amps,
    volts,
    interval,
    lower,
    upper,
    word,
    beyondAmps: further > 0 ? line.mostAmps : null,
    bends: line.bend !== null,
    nextAmps: word === 'cannot-tell' ? Math.min(amps, nextLoadTimes * line.mostAmps) : null,
  };
}

/** +5 rising while +12 sinks: a supply that regulates both together, pulled by a heavy +12 load. */
export interface CrossLoad {
  readonly twelveFallsVolts: number;
  readonly fiveRisesVolts: number;
}

/**
 * The cross-load effect between light load and work; null where it is not clearly seen: +12 falls by more than 1 % and
 * +5 rises by more than 0.5 % of nominal (bench practice), both by the same instrument, whose error cancels.
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
