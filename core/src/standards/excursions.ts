import type { Guide } from './rails.ts';

/** How long a peak lasts, in milliseconds. */
export const excursionMilliseconds = [100, 10, 1, 0.1] as const;
export type ExcursionMilliseconds = (typeof excursionMilliseconds)[number];

/**
 * What a supply must carry for a time, as a share of its rating; null where its guide promises nothing.
 * Source: desktop supply design guide 3.x (likely); 2.x promises the rating and no more.
 */
export function carriedShare(
  guide: Guide,
  has16Pin: boolean,
  ratingWatts: number,
  milliseconds: ExcursionMilliseconds,
): number | null {
  if (guide === '2.x') return null;
  const large = has16Pin && ratingWatts > 450;
  const table: Record<ExcursionMilliseconds, readonly [number, number]> = {
    100: [1.2, 1.1],
    10: [1.6, 1.35],
    1: [1.8, 1.45],
    0.1: [2, 1.5],
  };
  return table[milliseconds][large ? 0 : 1];
}

/** How a part's draw jumps for a moment. */
export const excursionKinds = ['none', 'processor', 'card-older', 'card-newer'] as const;
export type ExcursionKind = (typeof excursionKinds)[number];

/**
 * Multiple of the part's sustained watts that it may draw for a time.
 * Newer cards: card electromechanical specification (likely). Older cards and processors publish none: bench practice.
 */
export const excursionMultiple: Record<ExcursionKind, Record<ExcursionMilliseconds, number>> = {
  none: { 100: 1, 10: 1, 1: 1, 0.1: 1 },
  processor: { 100: 1.15, 10: 1.25, 1: 1.3, 0.1: 1.3 },
  'card-older': { 100: 1.2, 10: 1.5, 1: 1.7, 0.1: 1.8 },
  'card-newer': { 100: 1.5, 10: 2, 1: 2.5, 0.1: 3 },
};
