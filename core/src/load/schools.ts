import type { Guide } from '../standards/index.ts';
import { lastingShare } from './assess.ts';
import type { Demand } from './demand.ts';
import { owedAt, type Moment } from './moments.ts';

/** The rules of thumb for a supply's rating, and the one that follows from the parts. */
export type School = 'like-for-like' | 'fixed-margin' | 'half-load' | 'card-advice' | 'peaks-covered';
export const schools = [
  'like-for-like',
  'fixed-margin',
  'half-load',
  'card-advice',
  'peaks-covered',
] as const satisfies readonly School[];

/** Watts added by the fixed margin, the middle of the customary 100 to 200 (bench practice). */
export const fixedMarginWatts = 150;
/** Multiple of the lasting load for the half-load school, the middle of 1.5 to 2 (bench practice). */
export const halfLoadMultiple = 1.75;

/** The rating a school asks for, in watts; null when it needs a present supply and there is none. */
export interface SchoolRating {
  readonly school: School;
  readonly ratingWatts: number | null;
  /** What decides inside the school. */
  readonly because:
    | 'present-rating'
    | 'margin'
    | 'multiple'
    | 'lasting'
    | 'peak-1000'
    | 'peak-100'
    | 'peak-10'
    | 'peak-1'
    | 'spin-up'
    | 'no-present-supply'
    | 'advice'
    | 'no-advice';
}

/**
 * The smallest rating that covers lasting load at 80 %, the start of the drives and every peak that decides, by the
 * supply's guide. Ratings from 450 W count as large where that decides.
 */
export function peaksCoveredRating(demand: Demand, guide: Guide, has16Pin: boolean): SchoolRating {
  let best: { watts: number; because: SchoolRating['because'] } = {
    watts: demand.sustainedWatts / lastingShare,
    because: 'lasting',
  };
  const raise = (watts: number, because: SchoolRating['because']) => {
    if (watts > best.watts) best = { watts, because };
  };
  raise(demand.spinUpWatts, 'spin-up');
  for (const { milliseconds, watts } of demand.peaks) {
    if (milliseconds === 0.1) continue;
    const least = (ratingWatts: number) =>
      owedAt({ guide, has16Pin, ratingWatts }, String(milliseconds) as Moment).least;
    const small = watts / least(450);
    raise(small <= 450 ? small : Math.max(450, watts / least(451)), `peak-${milliseconds}`);
  }
  return { school: 'peaks-covered', ratingWatts: best.watts, because: best.because };
}

/**
 * What each school asks for. Source of the rules: bench practice.
 * @param cardAdviceWatts the least rating that the card's maker prints; null when nobody read it
 */
export function schoolRatings(
  demand: Demand,
  presentRatingWatts: number | null,
  guide: Guide,
  cardAdviceWatts: number | null = null,
): SchoolRating[] {
  return [
    {
      school: 'like-for-like',
      ratingWatts: presentRatingWatts,
      because: presentRatingWatts === null ? 'no-present-supply' : 'present-rating',
    },
    { school: 'fixed-margin', ratingWatts: demand.sustainedWatts + fixedMarginWatts, because: 'margin' },
    { school: 'half-load', ratingWatts: demand.sustainedWatts * halfLoadMultiple, because: 'multiple' },
    { school: 'card-advice', ratingWatts: cardAdviceWatts, because: cardAdviceWatts === null ? 'no-advice' : 'advice' },
    peaksCoveredRating(demand, guide, demand.has16Pin),
  ];
}
