import { boundToBe } from '../bound-to-be.ts';
import { railBand, type Guide, type RailName } from '../standards/index.ts';
import { type Instrument, limitOfErrorVolts } from './instrument.ts';
import type { Condition, MeasuredValue } from './reading.ts';
import { groupBy } from '../group-by.ts';
import { logSeconds } from './log-columns.ts';
import { roundingVolts } from './scatter.ts';
import { studentQuantile } from './student.ts';
import { spreadOf } from './verdict.ts';

export type SteadinessWord = 'steady' | 'wanders' | 'sags' | 'not-known';

/** How one rail keeps its level between repeats and between loads, in volts. */
export interface Steadiness {
  readonly rail: RailName;
  readonly word: SteadinessWord;
  /** Mean without load minus mean at work; null without both. */
  readonly dropVolts: number | null;
  readonly lightVolts: number | null;
  readonly workVolts: number | null;
  /** Largest spread of repeats in one condition, the meter's own rounding taken out; null without repeats. */
  readonly spreadVolts: number | null;
  /** Slope over time in one condition, volts per hour, where it is more than chance; null otherwise. */
  readonly driftVoltsPerHour: number | null;
}

/** A drift is looked for only over this many readings and this long. */
const driftReadings = 4;
const driftSeconds = 300;

/** A fall by more than this share of nominal between light load and work is called a sag (bench practice). */
export const sagShare = 0.02;
/** Repeats that spread by more than this share of nominal are called wandering (bench practice). */
export const wanderShare = 0.005;

function figures(readings: readonly MeasuredValue[], rail: RailName, condition: Condition): MeasuredValue[] {
  return readings.filter(
    (reading) => reading.subject === rail && reading.condition === condition && reading.value.kind === 'figure',
  );
}

function volts(readings: readonly MeasuredValue[]): number[] {
  return readings.flatMap((reading) => (reading.value.kind === 'figure' ? [reading.value.figure] : []));
}

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

const digitVolts = (instrument: Instrument | undefined, figure: number) =>
  instrument === undefined ? 0 : roundingVolts(instrument, figure) * Math.sqrt(12);
/** Figures that differ by a digit differ by a little more or less in binary. */
const binaryShare = 1e-6;

/**
 * The spread that is left when the rounding to the meter's last digit, digit / √12, is taken out of it; nothing where
 * the repeats differ by one digit only, which a level between two digits shows by itself.
 */
function withoutRounding(values: readonly number[], instrument: Instrument | undefined): number | null {
  const spread = spreadOf(values);
  if (spread === null) return null;
  const digit = digitVolts(instrument, boundToBe(values[0], 'value'));
  if (digit > 0 && Math.max(...values) - Math.min(...values) <= digit * (1 + binaryShare)) return 0;
  return Math.sqrt(Math.max(0, spread ** 2 - digit ** 2 / 12));
}

/** Least squares slope over time by one instrument, in volts per hour; null unless it differs from nothing at 95 %. */
function driftOf(group: readonly MeasuredValue[]): number | null {
  const points = group.flatMap((reading) =>
    reading.at === undefined || reading.value.kind !== 'figure'
      ? []
      : [{ seconds: logSeconds(reading.at, 'iso', '.'), volts: reading.value.figure }],
  );
  if (points.length < driftReadings) return null;
  const times = points.map((point) => point.seconds);
  if (Math.max(...times) - Math.min(...times) < driftSeconds) return null;
  const middle = mean(times);
  const centre = mean(points.map((point) => point.volts));
  const spread = points.reduce((sum, point) => sum + (point.seconds - middle) ** 2, 0);
  const slope = points.reduce((sum, point) => sum + (point.seconds - middle) * (point.volts - centre), 0) / spread;
  const scatter = Math.sqrt(
    points.reduce((sum, point) => sum + (point.volts - centre - slope * (point.seconds - middle)) ** 2, 0) /
      (points.length - 2),
  );
  return Math.abs(slope) > (studentQuantile(0.975, points.length - 2) * scatter) / Math.sqrt(spread)
    ? slope * 3600
    : null;
}

/**
 * What a fall between two loads may be without any: one digit where the same instrument read both, whose percent error
 * cancels, else the limits of error of both.
 */
function doubtOf(readings: readonly MeasuredValue[], shared: boolean, instruments: readonly Instrument[]): number {
  return readings.reduce((most, { instrumentId, value }) => {
    const instrument = instruments.find((candidate) => candidate.id === instrumentId);
    if (instrument === undefined || value.kind !== 'figure') return most;
    const own = shared
      ? digitVolts(instrument, value.figure) * (1 + binaryShare)
      : 2 * (limitOfErrorVolts(instrument, value.figure) ?? 0);
    return Math.max(most, own);
  }, 0);
}

/**
 * Steadiness of one rail from repeats and from the fall between light load (idle, else off load) and work.
 * The fall is compared only between readings of the same instrument where there are such; it must exceed what it may be
 * without any, from `doubtOf`.
 */
export function steadinessOf(
  rail: RailName,
  readings: readonly MeasuredValue[],
  instruments: readonly Instrument[],
  guide: Guide,
): Steadiness {
  const nominal = Math.abs(railBand(rail, guide).nominal);
  const wandersByCode = readings.some(
    (reading) => reading.subject === rail && reading.value.kind === 'code' && reading.value.code === 'wanders',
  );
  const work = figures(readings, rail, 'work');
  const idle = figures(readings, rail, 'idle');
  const light = idle.length > 0 ? idle : figures(readings, rail, 'off-load');
  let spreadVolts: number | null = null;
  let drift: number | null = null;
  for (const condition of ['off-load', 'idle', 'work'] as const) {
    const byInstrument = groupBy(figures(readings, rail, condition), (reading) => reading.instrumentId);
    for (const [instrumentId, group] of byInstrument) {
      const spread = withoutRounding(
        volts(group),
        instruments.find(({ id }) => id === instrumentId),
      );
      if (spread !== null && spread > (spreadVolts ?? -1)) spreadVolts = spread;
      const slope = driftOf(group);
      if (slope !== null && Math.abs(slope) > Math.abs(drift ?? 0)) drift = slope;
    }
  }
  const shared = work
    .map((reading) => reading.instrumentId)
    .find((id) => light.some((reading) => reading.instrumentId === id));
  const workVolts = volts(shared === undefined ? work : work.filter((reading) => reading.instrumentId === shared));
  const lightVolts = volts(shared === undefined ? light : light.filter((reading) => reading.instrumentId === shared));
  const known = workVolts.length > 0 && lightVolts.length > 0;
  const drop = known ? Math.abs(mean(lightVolts)) - Math.abs(mean(workVolts)) : null;
  const doubt = known ? doubtOf([...light, ...work], shared !== undefined, instruments) : 0;
  const sags = drop !== null && drop > sagShare * nominal + doubt;
  const wanders = wandersByCode || (spreadVolts !== null && spreadVolts > wanderShare * nominal);
  const word: SteadinessWord = sags
    ? 'sags'
    : wanders
      ? 'wanders'
      : drop !== null || spreadVolts !== null
        ? 'steady'
        : 'not-known';
  return {
    rail,
    word,
    dropVolts: drop,
    lightVolts: known ? mean(lightVolts) : null,
    workVolts: known ? mean(workVolts) : null,
    spreadVolts,
    driftVoltsPerHour: drift,
  };
}
