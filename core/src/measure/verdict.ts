import { powerGoodLimits, railBand, type Guide } from '../standards/index.ts';
import { groupBy } from './group.ts';
import { limitOfErrorVolts, type Instrument } from './instrument.ts';
import type { Condition, MeasuredValue, ReadingCode, Subject } from './reading.ts';

export type VerdictWord = 'pass' | 'fail' | 'cannot-tell';

/** Why a verdict is what it is. */
export type VerdictReason =
  | 'inside' | 'outside-low' | 'outside-high' | 'straddles-low' | 'straddles-high'
  | 'slower-than-guide' | 'absent-allowed' | 'beyond-range' | 'no-figure' | ReadingCode;

/** The verdict on one rail (volts) or on power-good (milliseconds) in one condition. */
export interface Verdict {
  readonly subject: Subject;
  readonly condition: Condition;
  readonly word: VerdictWord;
  readonly reason: VerdictReason;
  readonly instrumentId: string;
  readonly count: number;
  /** Mean of the repeats; null when only codes were read. */
  readonly mean: number | null;
  /** Sample standard deviation of the repeats; null with fewer than two. */
  readonly spread: number | null;
  /** Expanded uncertainty U = 2 u, also the guard band. */
  readonly expanded: number | null;
  readonly lower: number;
  readonly upper: number;
  /** The limit of error a meter would need to settle a "cannot tell", in the reading's unit. */
  readonly settlingError: number | null;
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

/** Sample standard deviation; null with fewer than two values. */
export function spreadOf(values: readonly number[]): number | null {
  if (values.length < 2) return null;
  const middle = mean(values);
  return Math.sqrt(values.reduce((sum, value) => sum + (value - middle) ** 2, 0) / (values.length - 1));
}

/**
 * Expanded uncertainty U = 2 u with u² = (a/√3)² + s²/n: limit of error a, spread s of n repeats.
 * Source: ILAC-G8 and ISO 14253-1.
 */
export function expandedUncertainty(limitOfError: number, spread: number | null, count: number): number {
  return 2 * Math.sqrt(limitOfError ** 2 / 3 + (spread === null ? 0 : spread ** 2 / count));
}

type Judged = Pick<Verdict, 'word' | 'reason' | 'mean' | 'spread' | 'expanded' | 'settlingError'>;

const codeVerdict: Record<ReadingCode, VerdictWord> = { 'too-high': 'fail', 'too-low': 'fail', absent: 'fail', wanders: 'cannot-tell' };

function byGuardBand(values: readonly number[], limitOfError: number, lower: number, upper: number): Judged {
  const middle = mean(values);
  const spread = spreadOf(values);
  const expanded = expandedUncertainty(limitOfError, spread, values.length);
  const found = { mean: middle, spread, expanded };
  if (middle >= lower + expanded && middle <= upper - expanded) return { ...found, word: 'pass', reason: 'inside', settlingError: null };
  if (middle < lower - expanded) return { ...found, word: 'fail', reason: 'outside-low', settlingError: null };
  if (middle > upper + expanded) return { ...found, word: 'fail', reason: 'outside-high', settlingError: null };
  const low = Math.abs(middle - lower) <= Math.abs(middle - upper);
  const distance = Math.min(Math.abs(middle - lower), Math.abs(middle - upper));
  const room = distance ** 2 / 4 - (spread === null ? 0 : spread ** 2 / values.length);
  return { ...found, word: 'cannot-tell', reason: low ? 'straddles-low' : 'straddles-high', settlingError: room > 0 ? Math.sqrt(3 * room) : null };
}

const blank = { mean: null, spread: null, expanded: null, settlingError: null } as const;

function judgeGroup(subject: Subject, condition: Condition, group: readonly MeasuredValue[], instrument: Instrument, guide: Guide): Verdict {
  const frame = { subject, condition, instrumentId: instrument.id, count: group.length };
  const figures = group.flatMap((reading) => (reading.value.kind === 'figure' ? [reading.value.figure] : []));
  const codes = group.flatMap((reading) => (reading.value.kind === 'code' ? [reading.value.code] : []));
  if (subject === 'power-good') {
    const limits = powerGoodLimits(guide);
    const ends = { lower: limits.earliestMilliseconds, upper: limits.latestMilliseconds };
    if (codes.length > 0) return { ...frame, ...ends, ...blank, word: codeVerdict[codes[0]!], reason: codes[0]! };
    if (instrument.powerGoodErrorMilliseconds === null) return { ...frame, ...ends, ...blank, mean: mean(figures), word: 'cannot-tell', reason: 'beyond-range' };
    const judged = byGuardBand(figures, instrument.powerGoodErrorMilliseconds, ends.lower, ends.upper);
    const slow = judged.word === 'pass' && judged.mean !== null && judged.mean > limits.slowMilliseconds;
    return { ...frame, ...ends, ...judged, reason: slow ? 'slower-than-guide' : judged.reason };
  }
  const band = railBand(subject, guide);
  const ends = { lower: band.lower, upper: band.upper };
  const code = codes[0];
  if (code !== undefined) {
    if (code === 'absent' && band.mayBeAbsent) return { ...frame, ...ends, ...blank, word: 'pass', reason: 'absent-allowed' };
    return { ...frame, ...ends, ...blank, mean: figures.length > 0 ? mean(figures) : null, word: codeVerdict[code], reason: code };
  }
  const limitOfError = limitOfErrorVolts(instrument, figures.reduce((most, figure) => (Math.abs(figure) > Math.abs(most) ? figure : most), 0));
  if (limitOfError === null) return { ...frame, ...ends, ...blank, mean: mean(figures), word: 'cannot-tell', reason: 'beyond-range' };
  return { ...frame, ...ends, ...byGuardBand(figures, limitOfError, ends.lower, ends.upper) };
}

/**
 * Verdicts for every subject and condition that was read. Readings with different instruments are judged apart and
 * the one with the smallest uncertainty speaks; a code that fails outweighs a figure of the same instrument.
 * @param readings in the order they were taken
 * @throws when a reading names an instrument that is not among `instruments`
 */
export function judgeReadings(readings: readonly MeasuredValue[], instruments: readonly Instrument[], guide: Guide): Verdict[] {
  const groups = groupBy(readings, (reading) => `${reading.subject}|${reading.condition}|${reading.instrumentId}`);
  const best = new Map<string, Verdict>();
  for (const group of groups.values()) {
    const first = group[0]!;
    const instrument = instruments.find((candidate) => candidate.id === first.instrumentId);
    if (!instrument) throw new Error(`reading names an unknown instrument ${first.instrumentId}`);
    const verdict = judgeGroup(first.subject, first.condition, group, instrument, guide);
    const key = `${first.subject}|${first.condition}`;
    const other = best.get(key);
    if (!other || (verdict.expanded ?? Infinity) < (other.expanded ?? Infinity)) best.set(key, verdict);
  }
  return [...best.values()];
}

/** The instruments that could settle a verdict of "cannot tell" at this reading. */
export function settlingInstruments(verdict: Verdict, instruments: readonly Instrument[]): Instrument[] {
  const { settlingError, mean: middle, subject } = verdict;
  if (settlingError === null || middle === null) return [];
  return instruments.filter((instrument) => {
    const error = subject === 'power-good' ? instrument.powerGoodErrorMilliseconds : limitOfErrorVolts(instrument, middle);
    return error !== null && error < settlingError;
  });
}
