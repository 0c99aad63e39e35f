import type { CableFamily, Grade, Guide, RailName, Shape } from '../standards/index.ts';

/** One output on a supply's label, such as 12V1 with 18 A. */
export interface RailRating {
  readonly label: string;
  readonly rail: RailName;
  readonly amps: number;
  /**
   * Which cables hang on it, where several +12 outputs share them out; empty or left out when the label does not say.
   */
  readonly feeds?: readonly CableFamily[] | undefined;
  /** Nobody read the amps yet: they are what a supply of such a rating usually has at least. */
  readonly usual?: boolean | undefined;
}

/** A limit that several outputs share, in watts. */
export interface CombinedLimit {
  readonly labels: readonly string[];
  readonly watts: number;
  /** Nobody read it yet, as with the amps of an output. */
  readonly usual?: boolean | undefined;
}

/** Which of its cables can be pulled at the supply: none, all but those of the board, or all. */
export const modularities = ['fixed', 'semi', 'full'] as const;
export type Modular = (typeof modularities)[number];

/** What a supply's label and shape say. */
export interface SupplyLabel {
  readonly ratingWatts: number;
  readonly rails: readonly RailRating[];
  readonly combined: readonly CombinedLimit[];
  readonly shape: Shape;
  readonly guide: Guide;
  readonly grade: Grade;
  readonly modular: Modular;
  readonly has16Pin: boolean;
}

/** What is taken of a label of which only the rating is known: nothing that was not read. */
export const emptyLabel: Omit<SupplyLabel, 'ratingWatts'> = {
  rails: [],
  combined: [],
  shape: 'ATX',
  guide: '2.x',
  grade: 'none',
  modular: 'fixed',
  has16Pin: false,
};

export type LabelProblem =
  | { readonly code: 'no-rails' }
  | { readonly code: 'no-twelve' }
  | { readonly code: 'usual-outputs'; readonly ratingWatts: number }
  | { readonly code: 'rails-below-rating'; readonly railWatts: number; readonly ratingWatts: number }
  | { readonly code: 'rails-far-above-rating'; readonly railWatts: number; readonly ratingWatts: number }
  | { readonly code: 'unknown-label'; readonly label: string };

export const nominalVolts: Record<RailName, number> = { '+12': 12, '+5': 5, '+3.3': 3.3, '-12': 12, '+5sb': 5 };

/** What does not add up on a label; the figures stay as they were typed. */
export function labelProblems(label: Pick<SupplyLabel, 'ratingWatts' | 'rails' | 'combined'>): LabelProblem[] {
  if (label.rails.length === 0) return [{ code: 'no-rails' }];
  const problems: LabelProblem[] = [];
  if ([...label.rails, ...label.combined].some(({ usual }) => usual === true))
    problems.push({ code: 'usual-outputs', ratingWatts: label.ratingWatts });
  if (!label.rails.some((rail) => rail.rail === '+12')) problems.push({ code: 'no-twelve' });
  const railWatts = label.rails.reduce((sum, rail) => sum + rail.amps * nominalVolts[rail.rail], 0);
  if (railWatts < label.ratingWatts * 0.95)
    problems.push({ code: 'rails-below-rating', railWatts, ratingWatts: label.ratingWatts });
  if (railWatts > label.ratingWatts * 3)
    problems.push({ code: 'rails-far-above-rating', railWatts, ratingWatts: label.ratingWatts });
  for (const limit of label.combined)
    for (const name of limit.labels)
      if (!label.rails.some((rail) => rail.label === name)) problems.push({ code: 'unknown-label', label: name });
  return problems;
}

/**
 * Watts all +12 outputs may give together: the tightest of the rail amps, a combined limit over all of them, and the
 * rating.
 */
export function twelveVoltWatts(label: Pick<SupplyLabel, 'ratingWatts' | 'rails' | 'combined'>): number {
  const twelve = label.rails.filter((rail) => rail.rail === '+12');
  const byAmps = twelve.reduce((sum, rail) => sum + rail.amps * 12, 0);
  const joint = label.combined
    .filter((limit) => twelve.every((rail) => limit.labels.includes(rail.label)))
    .map((limit) => limit.watts);
  return Math.min(byAmps, label.ratingWatts, ...joint);
}

/** The same label with everything it gives multiplied, as an allowance for age does. @param share 0 to 1 */
export function deratedLabel(label: SupplyLabel, share: number): SupplyLabel {
  return share === 1
    ? label
    : {
        ...label,
        ratingWatts: label.ratingWatts * share,
        rails: label.rails.map((rail) => ({ ...rail, amps: rail.amps * share })),
        combined: label.combined.map((limit) => ({ ...limit, watts: limit.watts * share })),
      };
}

/**
 * What is left of a rating after some years, 0.5 to 1 (more than half is never taken off); there is no standard for it,
 * so the yearly loss is a setting (bench practice, 1 to 2 % a year).
 */
export function ageShare(years: number | null, percentAYear: number): number {
  return years === null ? 1 : Math.max(0.5, 1 - (years * percentAYear) / 100);
}
