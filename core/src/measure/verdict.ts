import { boundToBe } from '../bound-to-be.ts';
import {
  holdUpLimit,
  powerGoodLimits,
  powerOnLimit,
  railBand,
  rippleLimit,
  type Guide,
  type RailName,
} from '../standards/index.ts';
import { groupBy } from '../group-by.ts';
import { limitOfErrorVolts, type Instrument } from './instrument.ts';
import {
  assumedHoldUpScatterMilliseconds,
  assumedRippleScatterShare,
  assumedScatterMilliseconds,
  assumedScatterVolts,
  scatterHalfWidth,
  scatterOf,
  type Scatter,
} from './scatter.ts';
import {
  isRail,
  isTime,
  rippleRail,
  type Condition,
  type MeasuredValue,
  type ReadingCode,
  type Subject,
} from './reading.ts';

/** `marginal`: inside, but so near its limit that little is left, or slower than the guide asks. */
export type VerdictWord = 'pass' | 'marginal' | 'fail' | 'cannot-tell';

/** Why a verdict is what it is. */
export type VerdictReason =
  | 'inside'
  | 'near-low'
  | 'near-high'
  | 'outside-low'
  | 'outside-high'
  | 'straddles-low'
  | 'straddles-high'
  | 'slower-than-guide'
  | 'shorter-than-guide'
  | 'absent-allowed'
  | 'beyond-range'
  | 'no-figure'
  /** Every main rail shows next to nothing: was the supply started at all? */
  | 'not-started'
  /** A figure of the other sign: the probes were swapped, or the sign was not typed. */
  | 'wrong-sign'
  /** Some power-ups were outside, others not. */
  | 'sometimes-early'
  | 'sometimes-late'
  | ReadingCode;

/** The verdict on one rail (volts), time (milliseconds) or ripple (millivolts) in one condition. */
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
  /** Expanded uncertainty U at 95 %, also the guard band. */
  readonly expanded: number | null;
  /** Limits in the reading's unit; without one on that side -Infinity or Infinity. */
  readonly lower: number;
  readonly upper: number;
  /**
   * The limit of error a meter would need to settle a "cannot tell" with at least `settlingReadings`, in the reading's
   * unit.
   */
  readonly settlingError: number | null;
  /**
   * Repeats with this instrument that would settle it, if they scatter as so far; null where only another meter can.
   */
  readonly settlingRepeats: number | null;
  /** The instrument's calibration had run out when it was read, so its error counts half as much again. */
  readonly overdue: boolean;
}

/** A pass whose interval reaches into this last share of the way from nominal to limit is marginal (bench practice). */
export const marginalShare = 0.1;
/** What the limit of error grows by once the calibration has run out (bench practice). */
export const overdueFactor = 1.5;
/** So many readings another meter is thought to take where fewer were taken, since one alone says nothing of noise. */
export const settlingReadings = 3;
/** More repeats than this are not asked of anybody. */
const mostRepeats = 30;

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
 * Expanded uncertainty U with U² = (2 a/√3)² + (t s/√n)²: limit of error a, scatter s of n readings by Student's t.
 * Source: ILAC-G8 and ISO 14253-1; the scatter from `scatterOf`.
 */
export function expandedUncertainty(limitOfError: number, scatter: Scatter, count: number): number {
  return Math.hypot((2 * limitOfError) / Math.sqrt(3), scatterHalfWidth(scatter, count));
}

/**
 * Repeats with the same instrument that would bring the scatter under this half width; null where more than a bench
 * takes.
 */
function repeatsFor(halfWidth: number, assumed: number, spread: number | null, count: number): number | null {
  for (let repeats = count + 1; repeats <= mostRepeats; repeats += 1) {
    const shown = { deviation: spread ?? assumed, degrees: repeats - 1 };
    if (scatterHalfWidth(scatterOf(assumed, shown), repeats) < halfWidth) return repeats;
  }
  return null;
}

type Judged = Pick<Verdict, 'word' | 'reason' | 'mean' | 'spread' | 'expanded' | 'settlingError' | 'settlingRepeats'>;

const codeVerdict: Record<ReadingCode, VerdictWord> = {
  'too-high': 'fail',
  'too-low': 'fail',
  absent: 'fail',
  wanders: 'cannot-tell',
};

function byGuardBand(
  values: readonly number[],
  limitOfError: number,
  assumedScatter: number,
  lower: number,
  upper: number,
  nominal: number | null,
): Judged {
  const middle = mean(values);
  const spread = spreadOf(values);
  const scatter = scatterOf(assumedScatter, spread === null ? null : { deviation: spread, degrees: values.length - 1 });
  const expanded = expandedUncertainty(limitOfError, scatter, values.length);
  const found = { mean: middle, spread, expanded, settlingError: null, settlingRepeats: null };
  if (middle >= lower + expanded && middle <= upper - expanded) {
    if (nominal !== null && middle - expanded < lower + marginalShare * (nominal - lower))
      return { ...found, word: 'marginal', reason: 'near-low' };
    if (nominal !== null && middle + expanded > upper - marginalShare * (upper - nominal))
      return { ...found, word: 'marginal', reason: 'near-high' };
    return { ...found, word: 'pass', reason: 'inside' };
  }
  if (middle < lower - expanded) return { ...found, word: 'fail', reason: 'outside-low' };
  if (middle > upper + expanded) return { ...found, word: 'fail', reason: 'outside-high' };
  const low = Math.abs(middle - lower) <= Math.abs(middle - upper);
  const distance = Math.min(Math.abs(middle - lower), Math.abs(middle - upper));
  const readings = Math.max(values.length, settlingReadings);
  const then =
    readings === values.length
      ? scatter
      : scatterOf(assumedScatter, { deviation: spread ?? assumedScatter, degrees: readings - 1 });
  const room = distance ** 2 - scatterHalfWidth(then, readings) ** 2;
  const forScatter = distance ** 2 - (4 * limitOfError ** 2) / 3;
  return {
    ...found,
    word: 'cannot-tell',
    reason: low ? 'straddles-low' : 'straddles-high',
    settlingError: room > 0 ? Math.sqrt(3 * room) / 2 : null,
    settlingRepeats: forScatter > 0 ? repeatsFor(Math.sqrt(forScatter), assumedScatter, spread, values.length) : null,
  };
}

/**
 * One start, or one end, that failed stays what it is, whatever the others were: the worst of those that did, where
 * some did not.
 */
function failedStart(
  figures: readonly number[],
  limitOfError: number,
  { lower, upper, scatter }: Pick<SignalRule, 'lower' | 'upper' | 'scatter'>,
): Pick<Verdict, 'word' | 'reason' | 'mean'> | null {
  const single = figures.map((figure) => byGuardBand([figure], limitOfError, scatter, lower, upper, null));
  const failed = single.filter(({ word }) => word === 'fail');
  if (failed.length === 0 || failed.length === figures.length) return null;
  const beyond = ({ mean }: Judged) => (mean === null ? 0 : Math.max(lower - mean, mean - upper));
  const worst = failed.reduce((most, item) => (beyond(item) > beyond(most) ? item : most));
  return {
    word: 'fail',
    reason: worst.reason === 'outside-low' ? 'sometimes-early' : 'sometimes-late',
    mean: worst.mean,
  };
}

/** What a time or a ripple is held against, and how well this instrument gives it. */
interface SignalRule {
  readonly lower: number;
  readonly upper: number;
  /** Beyond it, on the side of the limit, it passes and is worse than its guide. */
  readonly wanted: number | null;
  readonly limitOfError: number | null;
  readonly scatter: number;
  /** Zero for ripple, of which less is better; null where the way to the limit says nothing. */
  readonly nominal: number | null;
}

function signalRule(subject: Exclude<Subject, RailName>, instrument: Instrument, guide: Guide): SignalRule {
  const times = { limitOfError: instrument.powerGoodErrorMilliseconds, nominal: null };
  if (subject === 'power-good') {
    const { earliestMilliseconds: lower, latestMilliseconds: upper, slowMilliseconds: wanted } = powerGoodLimits(guide);
    return { ...times, lower, upper, wanted, scatter: assumedScatterMilliseconds };
  }
  if (isTime(subject)) {
    const { least, most, wanted } = subject === 'power-on' ? powerOnLimit(guide) : holdUpLimit(guide);
    const scatter = subject === 'power-on' ? assumedScatterMilliseconds : assumedHoldUpScatterMilliseconds;
    return { ...times, lower: least ?? -Infinity, upper: most ?? Infinity, wanted, scatter };
  }
  const rail = boundToBe(rippleRail(subject), `rail of ${subject}`);
  const most = boundToBe(rippleLimit(rail).most, `limit of ${subject}`);
  return {
    lower: -Infinity,
    upper: most,
    wanted: null,
    limitOfError: instrument.rippleErrorMillivolts,
    scatter: assumedRippleScatterShare * most,
    nominal: 0,
  };
}

/** The verdict on a time or a ripple: two limits, or one. */
function judgeSignal(
  subject: Exclude<Subject, RailName>,
  frame: Pick<Verdict, 'subject' | 'condition' | 'instrumentId' | 'count' | 'overdue'>,
  figures: readonly number[],
  codes: readonly ReadingCode[],
  instrument: Instrument,
  trust: number,
  guide: Guide,
): Verdict {
  const rule = signalRule(subject, instrument, guide);
  const ends = { lower: rule.lower, upper: rule.upper };
  const code = codes[0];
  if (code !== undefined) return { ...frame, ...ends, ...blank, word: codeVerdict[code], reason: code };
  if (rule.limitOfError === null)
    return { ...frame, ...ends, ...blank, mean: mean(figures), word: 'cannot-tell', reason: 'beyond-range' };
  const limitOfError = rule.limitOfError * trust;
  const judged = byGuardBand(figures, limitOfError, rule.scatter, rule.lower, rule.upper, rule.nominal);
  const bad = figures.length < 2 || !isTime(subject) ? null : failedStart(figures, limitOfError, rule);
  if (bad !== null) return { ...frame, ...ends, ...judged, ...bad, settlingError: null, settlingRepeats: null };
  const beside =
    rule.wanted === null || judged.word !== 'pass' || judged.mean === null ? null : judged.mean - rule.wanted;
  const worse =
    beside === null
      ? null
      : subject === 'hold-up'
        ? beside < 0
          ? 'shorter-than-guide'
          : null
        : beside > 0
          ? 'slower-than-guide'
          : null;
  return { ...frame, ...ends, ...judged, ...(worse === null ? {} : { word: 'marginal', reason: worse }) };
}

const blank = { mean: null, spread: null, expanded: null, settlingError: null, settlingRepeats: null } as const;

function judgeGroup(
  subject: Subject,
  condition: Condition,
  group: readonly MeasuredValue[],
  instrument: Instrument,
  guide: Guide,
): Verdict {
  const { calibratedUntil } = instrument;
  const overdue =
    calibratedUntil !== null && group.some(({ at }) => at !== undefined && at.slice(0, 10) > calibratedUntil);
  const trust = overdue ? overdueFactor : 1;
  const frame = { subject, condition, instrumentId: instrument.id, count: group.length, overdue };
  const figures = group.flatMap((reading) => (reading.value.kind === 'figure' ? [reading.value.figure] : []));
  const codes = group.flatMap((reading) => (reading.value.kind === 'code' ? [reading.value.code] : []));
  if (!isRail(subject)) return judgeSignal(subject, frame, figures, codes, instrument, trust, guide);
  const band = railBand(subject, guide);
  const ends = { lower: band.lower, upper: band.upper };
  const code = codes[0];
  if (code !== undefined) {
    if (code === 'absent' && band.mayBeAbsent)
      return { ...frame, ...ends, ...blank, word: 'pass', reason: 'absent-allowed' };
    return {
      ...frame,
      ...ends,
      ...blank,
      mean: figures.length > 0 ? mean(figures) : null,
      word: codeVerdict[code],
      reason: code,
    };
  }
  const limitOfError = limitOfErrorVolts(
    instrument,
    figures.reduce((most, figure) => (Math.abs(figure) > Math.abs(most) ? figure : most), 0),
  );
  if (limitOfError === null)
    return { ...frame, ...ends, ...blank, mean: mean(figures), word: 'cannot-tell', reason: 'beyond-range' };
  const scatter = assumedScatterVolts(instrument, subject, guide);
  const level = mean(figures);
  if (Math.sign(level) !== Math.sign(band.nominal) && Math.abs(level) > nextToNothing * Math.abs(band.nominal))
    return { ...frame, ...ends, ...blank, mean: level, word: 'cannot-tell', reason: 'wrong-sign' };
  return {
    ...frame,
    ...ends,
    ...byGuardBand(figures, limitOfError * trust, scatter, ends.lower, ends.upper, band.nominal),
  };
}

const mainRails: readonly Subject[] = ['+12', '+5', '+3.3'];
/**
 * A main rail that shows less than this share of its nominal shows next to nothing: what leaks in from standby (bench
 * practice).
 */
export const nextToNothing = 0.1;

/**
 * The conditions in which every main rail that was read shows next to nothing. A machine that is off or asleep, and a
 * supply whose start line is not tied, read so; one rail that is gone beside others that are there does not.
 */
export function offConditions(readings: readonly MeasuredValue[], guide: Guide): Set<Condition> {
  const nothing = ({ subject, value }: MeasuredValue) =>
    isRail(subject) &&
    (value.kind === 'code'
      ? value.code === 'absent'
      : Math.abs(value.figure) < nextToNothing * Math.abs(railBand(subject, guide).nominal));
  const main = readings.filter(({ subject }) => mainRails.includes(subject));
  return new Set(
    main
      .map(({ condition }) => condition)
      .filter((condition) => main.filter((reading) => reading.condition === condition).every(nothing)),
  );
}

/** The readings that were taken while the supply ran; all of them where it is known to have been told to start. */
export function whileRunning<T extends MeasuredValue>(readings: readonly T[], guide: Guide, started = false): T[] {
  const off = started ? new Set<Condition>() : offConditions(readings, guide);
  return readings.filter((reading) => !off.has(reading.condition));
}

/**
 * Verdicts for every subject and condition that was read. Readings with different instruments are judged apart and
 * the one with the smallest uncertainty speaks; a code that fails outweighs a figure of the same instrument. Where
 * every main rail shows next to nothing all but standby says nothing, unless the supply is known to have been started.
 * @param readings in the order they were taken
 * @param started somebody saw to it that the supply was told to start
 * @throws when a reading names an instrument that is not among `instruments`
 */
export function judgeReadings(
  readings: readonly MeasuredValue[],
  instruments: readonly Instrument[],
  guide: Guide,
  started = false,
): Verdict[] {
  const off = started ? new Set<Condition>() : offConditions(readings, guide);
  const groups = groupBy(readings, (reading) => `${reading.subject}|${reading.condition}|${reading.instrumentId}`);
  const best = new Map<string, Verdict>();
  for (const group of groups.values()) {
    const first = boundToBe(group[0], 'reading of a group');
    const instrument = instruments.find((candidate) => candidate.id === first.instrumentId);
    if (!instrument) throw new Error(`reading names an unknown instrument ${first.instrumentId}`);
    const judged = judgeGroup(first.subject, first.condition, group, instrument, guide);
    const verdict: Verdict =
      first.subject !== '+5sb' && off.has(first.condition)
        ? { ...judged, word: 'cannot-tell', reason: 'not-started', settlingError: null, settlingRepeats: null }
        : judged;
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
    const error = isRail(subject)
      ? limitOfErrorVolts(instrument, middle)
      : isTime(subject)
        ? instrument.powerGoodErrorMilliseconds
        : instrument.rippleErrorMillivolts;
    return error !== null && error < settlingError;
  });
}
