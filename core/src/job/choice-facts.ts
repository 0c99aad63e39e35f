import type { LoadFinding } from '../load/index.ts';
import type { SupplyLabel } from '../machine/index.ts';
import type { CandidateClass, CandidateRow, Money, Price } from '../supply/index.ts';

/** What was known of a supply of the shop's list when it was chosen for a job. */
export interface CandidateFacts extends Pick<SupplyLabel, 'ratingWatts' | 'shape' | 'guide' | 'grade'> {
  readonly of: 'candidate';
  /** How it stood for the machine; one that does not fit can be chosen all the same, with a reason in words. */
  readonly class: CandidateClass;
  readonly price: Price;
  /** Units that could be fitted then. */
  readonly onShelf: number;
  /** What it costs to run for a year. */
  readonly runningAYear: Money;
  /** Lasting load over rating; null when it could not be told. */
  readonly loadShare: number | null;
  readonly cables: number;
  /** Optional inlets that its kit leaves open. */
  readonly openOptional: number;
  /** What decided, or was the fullest; null when nothing could be compared. */
  readonly fullest: FullestLimit | null;
}

/** A comparison of a figure with what the supply gives, as it stood then. */
export type FullestLimit = Omit<LoadFinding, 'ratio'>;

/** What was known of the supply that came when it was kept. */
export interface PresentFacts {
  readonly of: 'present';
  /** Readings at work said that it is healthy; else only that it carries the plan was known. */
  readonly measuredWell: boolean;
}

/** What was known when a choice was made: figures and codes alone, so that they can be told in any words. */
export type ChoiceFacts = CandidateFacts | PresentFacts;

function fullestLimit({ code, subject, moment, unit, figure, limit, word }: LoadFinding): FullestLimit {
  return { code, subject, moment, unit, figure, limit, word };
}

/**
 * What is known of a candidate now, to be kept with the choice.
 * @param currency of the shop, in which its running cost is reckoned
 */
export function candidateFacts(candidate: CandidateRow, currency: string): CandidateFacts {
  const { model, load, cost, cables, openOptional } = candidate;
  const { ratingWatts, shape, guide, grade } = model.label;
  return {
    of: 'candidate',
    class: candidate.class,
    ratingWatts,
    shape,
    guide,
    grade,
    price: model.price,
    onShelf: model.onShelf,
    runningAYear: { minor: Math.round(cost.minorAYear), currency },
    loadShare: load.loadShare,
    cables,
    openOptional: openOptional.length,
    fullest: load.deciding === null ? null : fullestLimit(load.deciding),
  };
}
