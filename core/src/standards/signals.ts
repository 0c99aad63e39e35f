import type { Guide, RailName } from './rails.ts';
import { sources, type Source } from './source.ts';

/** Power-good delay after the rails are good, in milliseconds. */
export interface PowerGoodLimits {
  readonly earliestMilliseconds: number;
  readonly latestMilliseconds: number;
  /** Above this and up to `latest` a recent supply is slower than its guide asks. */
  readonly slowMilliseconds: number;
  readonly source: Source;
}

/** Limits for the power-good delay: 100 to 500 ms; a 3.x supply above 250 ms is slower than its guide. */
export function powerGoodLimits(guide: Guide): PowerGoodLimits {
  return guide === '3.x'
    ? { earliestMilliseconds: 100, latestMilliseconds: 500, slowMilliseconds: 250, source: sources.guide3 }
    : { earliestMilliseconds: 100, latestMilliseconds: 500, slowMilliseconds: 500, source: sources.guide2 };
}

/** A time or a voltage that has one limit, and beside it what the guide would like. */
export interface OneLimit {
  /** Least that is allowed; null where only the most is. */
  readonly least: number | null;
  /** Most that is allowed; null where only the least is. */
  readonly most: number | null;
  /** What the guide asks beyond that: slower, or shorter, is worse than its guide; null where it asks nothing. */
  readonly wanted: number | null;
  readonly source: Source;
}

/**
 * From the start to the rails in their limits, in milliseconds: at most 500; a recent guide wants 150, and what takes
 * longer is slower than its guide.
 */
export function powerOnLimit(guide: Guide): OneLimit {
  return guide === '3.x'
    ? { least: null, most: 500, wanted: 150, source: sources.guide3 }
    : { least: null, most: 500, wanted: null, source: sources.guide2 };
}

/**
 * How long the rails stand once the mains is gone, in milliseconds: 16 at full load; by a recent guide 12 at full load
 * and 17 at 80 %, so that less than 17 is too short unless it was read at full load.
 */
export function holdUpLimit(guide: Guide): OneLimit {
  return guide === '3.x'
    ? { least: 12, most: null, wanted: 17, source: sources.guide3 }
    : { least: 16, most: null, wanted: null, source: sources.guide2 };
}

/** Ripple and noise, in millivolts peak to peak, by oscilloscope with a short ground. */
export function rippleLimit(rail: RailName): OneLimit {
  return { least: null, most: rail === '+12' || rail === '-12' ? 120 : 50, wanted: null, source: sources.guide2 };
}
