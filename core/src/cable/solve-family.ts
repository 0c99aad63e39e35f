import type { CableFamily } from '../standards/index.ts';
import type { KitCable } from './kit.ts';
import {
  newBudget,
  noExtras,
  type Budget,
  type FamilyExtras,
  type FamilyPlan,
  type LegToServe,
} from './plan-family.ts';
import { noScore } from './score.ts';
import { noRoom, type Room } from './supply-ends.ts';
import { tabulateFamily } from './plan-table.ts';
import { searchFamily } from './search-family.ts';

/** Up to so many inlets are searched, more are tabulated. */
const mostSearched = 8;

const nothingAsked: FamilyPlan = { cables: [], open: [], taken: noRoom, score: noScore, proved: true };

/**
 * The exact best way to serve one family's inlets, as `searchFamily`: by search where there are few, by table where
 * there are many and enough of them are alike. What neither can do in time comes from the search with `proved` false.
 */
export function planFamily(
  family: CableFamily,
  cables: readonly KitCable[],
  inlets: readonly LegToServe[],
  room: Room,
  allowShared: boolean,
  extras: FamilyExtras = noExtras,
  budget: Budget = newBudget(),
): FamilyPlan | null {
  if (inlets.length === 0 && extras.placed.length === 0) return nothingAsked;
  if (inlets.length > mostSearched) {
    const plan = tabulateFamily(family, cables, inlets, room, allowShared, extras, budget);
    if (plan !== 'too-large') return plan;
  }
  return searchFamily(family, cables, inlets, room, allowShared, extras, budget);
}
