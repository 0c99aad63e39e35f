import type { Guide } from './rails.ts';
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
