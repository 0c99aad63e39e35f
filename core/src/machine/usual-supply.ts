import { boundToBe } from '../bound-to-be.ts';
import type { Shape } from '../standards/index.ts';
import type { CaseLayout } from './part.ts';
import type { SupplyLabel } from './supply-label.ts';

/**
 * What a supply of a rating usually has at least, for one whose label was not read yet (bench practice, on the low side
 * of what labels say): the share of the rating that +12 gives, amps of +5 and +3.3, what these two give together, and
 * amps of standby.
 */
const usualByRating = [
  { upTo: 250, share12: 0.7, five: 12, three: 12, both: 85, standby: 2 },
  { upTo: 350, share12: 0.75, five: 14, three: 14, both: 95, standby: 2 },
  { upTo: 450, share12: 0.8, five: 15, three: 15, both: 100, standby: 2.5 },
  { upTo: 600, share12: 0.88, five: 20, three: 20, both: 110, standby: 2.5 },
  { upTo: Infinity, share12: 0.95, five: 20, three: 20, both: 120, standby: 3 },
] as const;

/** Whole amps, never more than the figure. */
const wholeAmps = (watts: number, volts: number): number => Math.max(1, Math.floor(watts / volts));

/**
 * The five outputs of a supply of which only the rating is known, each marked as what is usual and not read; no output
 * gives more than the rating, none gives nothing.
 * @param ratingWatts at least 1
 */
export function usualOutputs(ratingWatts: number): Pick<SupplyLabel, 'rails' | 'combined'> {
  const usual = boundToBe(
    usualByRating.find(({ upTo }) => ratingWatts <= upTo),
    'usual supply',
  );
  const most = (amps: number, volts: number) => Math.min(amps, wholeAmps(ratingWatts, volts));
  const both = Math.min(usual.both, ratingWatts);
  return {
    rails: [
      { label: '12V', rail: '+12', amps: wholeAmps(ratingWatts * usual.share12, 12), usual: true },
      { label: '5V', rail: '+5', amps: most(usual.five, 5), usual: true },
      { label: '3.3V', rail: '+3.3', amps: most(usual.three, 3.3), usual: true },
      { label: '-12V', rail: '-12', amps: 0.3, usual: true },
      { label: '5VSB', rail: '+5sb', amps: usual.standby, usual: true },
    ],
    combined: [{ labels: ['5V', '3.3V'], watts: both, usual: true }],
  };
}

/** Whether some outputs or limits of a label are what is usual, and nobody read them yet. */
export const hasUsualOutputs = ({ rails, combined }: Pick<SupplyLabel, 'rails' | 'combined'>): boolean =>
  [...rails, ...combined].some(({ usual }) => usual === true);

/** A label of which somebody said that it says the same. */
export const asRead = ({ rails, combined }: SupplyLabel): Pick<SupplyLabel, 'rails' | 'combined'> => ({
  rails: rails.map((rail) => ({ ...rail, usual: undefined })),
  combined: combined.map((limit) => ({ ...limit, usual: undefined })),
});

/**
 * A label with another rating. Outputs that nobody entered, or that were only usual for the rating before, are what is
 * usual for this one.
 */
export function withRating<L extends Pick<SupplyLabel, 'ratingWatts' | 'rails' | 'combined'>>(
  label: L,
  ratingWatts: number,
): L {
  const isOpen = [...label.rails, ...label.combined].every(({ usual }) => usual === true);
  return isOpen ? { ...label, ratingWatts, ...usualOutputs(ratingWatts) } : { ...label, ratingWatts };
}

/** The shape of supply that a case of a layout usually takes. */
export const usualShape: Readonly<Record<CaseLayout, Shape>> = { tower: 'ATX', small: 'SFX', slim: 'TFX' };

/**
 * The shapes that a bay takes, once a case is said to be of a layout: what is usual there where what stood was only
 * usual for the layout before; what somebody said stays. A supply that came in the case fits it, whatever is usual.
 * @param came the shape of the supply that came with the machine, null where it is not known
 */
export function shapesOfLayout(
  before: { readonly layout: CaseLayout; readonly shapes: readonly Shape[] },
  layout: CaseLayout,
  came: Shape | null,
): readonly Shape[] {
  const wasUsual = before.shapes.length === 1 && before.shapes[0] === usualShape[before.layout];
  if (!wasUsual) return before.shapes;
  return [came ?? usualShape[layout]];
}

/**
 * The shapes that a bay takes, once the supply that came in it is known to be of a shape: that one alone where what
 * stood was only usual, one more otherwise.
 */
export function shapesWithSupply(
  before: { readonly layout: CaseLayout; readonly shapes: readonly Shape[] },
  shape: Shape,
): readonly Shape[] {
  if (before.shapes.includes(shape)) return before.shapes;
  const wasUsual = before.shapes.length === 1 && before.shapes[0] === usualShape[before.layout];
  return wasUsual ? [shape] : [...before.shapes, shape];
}
