import { railBand, type Guide, type RailName } from '../standards/index.ts';
import type { Instrument } from './instrument.ts';
import { limitOfErrorVolts } from './instrument.ts';
import type { Condition, MeasuredValue } from './reading.ts';
import { groupBy } from './group.ts';
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
  /** Largest spread of repeats in one condition; null without repeats. */
  readonly spreadVolts: number | null;
}

/** A fall by more than this share of nominal between light load and work is called a sag (bench practice). */
export const sagShare = 0.02;
/** Repeats that spread by more than this share of nominal are called wandering (bench practice). */
export const wanderShare = 0.005;

function figures(readings: readonly MeasuredValue[], rail: RailName, condition: Condition): MeasuredValue[] {
  return readings.filter((reading) => reading.subject === rail && reading.condition === condition && reading.value.kind === 'figure');
}

function volts(readings: readonly MeasuredValue[]): number[] {
  return readings.flatMap((reading) => (reading.value.kind === 'figure' ? [reading.value.figure] : []));
}

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

/**
 * Steadiness of one rail from repeats and from the fall between light load (idle, else off load) and work.
 * The fall is compared only between readings of the same instrument where there are such, since its percent error
 * cancels; otherwise it must also exceed the limits of error of both.
 */
export function steadinessOf(rail: RailName, readings: readonly MeasuredValue[], instruments: readonly Instrument[], guide: Guide): Steadiness {
  const nominal = Math.abs(railBand(rail, guide).nominal);
  const wandersByCode = readings.some((reading) => reading.subject === rail && reading.value.kind === 'code' && reading.value.code === 'wanders');
  const work = figures(readings, rail, 'work');
  const idle = figures(readings, rail, 'idle');
  const light = idle.length > 0 ? idle : figures(readings, rail, 'off-load');
  let spreadVolts: number | null = null;
  for (const condition of ['off-load', 'idle', 'work'] as const) {
    const byInstrument = groupBy(figures(readings, rail, condition), (reading) => reading.instrumentId);
    for (const group of byInstrument.values()) {
      const spread = spreadOf(volts(group));
      if (spread !== null && spread > (spreadVolts ?? -1)) spreadVolts = spread;
    }
  }
  const shared = work.map((reading) => reading.instrumentId).find((id) => light.some((reading) => reading.instrumentId === id));
  const workVolts = volts(shared === undefined ? work : work.filter((reading) => reading.instrumentId === shared));
  const lightVolts = volts(shared === undefined ? light : light.filter((reading) => reading.instrumentId === shared));
  const known = workVolts.length > 0 && lightVolts.length > 0;
  const drop = known ? Math.abs(mean(lightVolts)) - Math.abs(mean(workVolts)) : null;
  const doubt = shared !== undefined || !known ? 0 : [...work, ...light].reduce((most, reading) => {
    const instrument = instruments.find((candidate) => candidate.id === reading.instrumentId);
    const error = instrument && reading.value.kind === 'figure' ? limitOfErrorVolts(instrument, reading.value.figure) : null;
    return Math.max(most, 2 * (error ?? 0));
  }, 0);
  const sags = drop !== null && drop > sagShare * nominal + doubt;
  const wanders = wandersByCode || (spreadVolts !== null && spreadVolts > wanderShare * nominal);
  const word: SteadinessWord = sags ? 'sags' : wanders ? 'wanders' : drop !== null || spreadVolts !== null ? 'steady' : 'not-known';
  return { rail, word, dropVolts: drop, lightVolts: known ? mean(lightVolts) : null, workVolts: known ? mean(workVolts) : null, spreadVolts };
}
