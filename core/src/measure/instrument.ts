import { isRail, isTime, type Subject } from './reading.ts';

/** One range of a meter: limit of error = percent of reading + counts x digit. */
export interface MeterRange {
  readonly fullScaleVolts: number;
  readonly percent: number;
  readonly counts: number;
  readonly digitVolts: number;
}

export type InstrumentKind = 'multimeter' | 'tester' | 'oscilloscope';
export const instrumentKinds = ['multimeter', 'tester', 'oscilloscope'] as const satisfies readonly InstrumentKind[];

/**
 * What stands for an instrument where a machine told its own voltages, by its board's sensor. Nobody knows its error:
 * it is a rough word, which judges nothing, and no instrument of a shop has its id.
 */
export const boardSensorId = 'board-sensor';

/** A meter or tester of the shop with its error specification. */
export interface Instrument {
  readonly id: string;
  readonly name: string;
  readonly kind: InstrumentKind;
  readonly ranges: readonly MeterRange[];
  /** Limit of error of the times it gives, in milliseconds; null when it cannot time. */
  readonly powerGoodErrorMilliseconds: number | null;
  /** Limit of error of ripple, in millivolts peak to peak; null when it shows none, as every multimeter. */
  readonly rippleErrorMillivolts: number | null;
  /** Day until which its calibration holds, ISO date; null when never calibrated. */
  readonly calibratedUntil: string | null;
  /** Whose it is; empty when it is the shop's. */
  readonly ownedBy: string;
}

/** Whether an instrument gives such a figure at all; a voltage may still be beyond its ranges. */
export function gives(instrument: Instrument, subject: Subject): boolean {
  if (isRail(subject)) return true;
  return (isTime(subject) ? instrument.powerGoodErrorMilliseconds : instrument.rippleErrorMillivolts) !== null;
}

/**
 * Limit of error in volts at a reading: the smallest range that holds it.
 * @returns null when the reading is beyond every range
 */
export function limitOfErrorVolts(instrument: Instrument, volts: number): number | null {
  const size = Math.abs(volts);
  let best: MeterRange | null = null;
  for (const range of instrument.ranges) {
    if (size <= range.fullScaleVolts && (best === null || range.fullScaleVolts < best.fullScaleVolts)) best = range;
  }
  return best === null ? null : (size * best.percent) / 100 + best.counts * best.digitVolts;
}
