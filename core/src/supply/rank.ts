import { judgeSupply, type Candidate, type FitQuestion } from './fit.ts';
import type { SupplyModel } from './model.ts';

/**
 * All supplies, those that fit first. The rule, in this order: on the shelf before to order; every optional inlet served
 * before not; the lower price; the smaller rating; the name. Those that fall: fewest reasons first, then as above.
 */
export function rankSupplies(models: readonly SupplyModel[], question: FitQuestion): Candidate[] {
  return models.map((model) => judgeSupply(model, question)).sort(compareCandidates);
}

/** The order of `rankSupplies`. Prices of different currencies are not compared. */
export function compareCandidates(a: Candidate, b: Candidate): number {
  return Number(b.fits) - Number(a.fits)
    || a.reasons.length - b.reasons.length
    || Number(b.model.onShelf > 0) - Number(a.model.onShelf > 0)
    || a.plan.open.length - b.plan.open.length
    || (a.model.price.currency === b.model.price.currency ? a.model.price.minor - b.model.price.minor : a.model.price.currency.localeCompare(b.model.price.currency))
    || a.model.label.ratingWatts - b.model.label.ratingWatts
    || a.model.name.localeCompare(b.model.name);
}
