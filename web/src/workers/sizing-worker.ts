import { expose } from 'comlink';
import { seeded } from '@fairwatt/core/simulate';
import {
  candidateRow,
  drawLoads,
  rankSupplies,
  type CandidateRow,
  type FitQuestion,
  type LoadDraws,
  type MachinePart,
  type SupplyLabel,
  type SupplyModel,
  type Weights,
} from '@fairwatt/core';

let supplies: readonly SupplyModel[] = [];

/**
 * A candidate without its supply, which the page has already, and without the findings that do not decide: thousands of
 * rows cross to the page at once.
 */
export type ThinRow = Omit<CandidateRow, 'model'> & { readonly modelId: string };

const session = {
  /** The shop's supplies, handed over once. */
  stock(list: readonly SupplyModel[]): void {
    supplies = list;
  },
  rank(question: FitQuestion, weights: Weights, currency: string, tell: (share: number) => void): ThinRow[] {
    return rankSupplies(supplies, question, weights, currency, supplies.length > 500 ? tell : undefined).map(
      (ranked) => {
        const { model, load, ...row } = candidateRow(ranked);
        return { ...row, load: { ...load, findings: [], spread: null }, modelId: model.id };
      },
    );
  },
  draw(parts: readonly MachinePart[], label: SupplyLabel | null, ageShare: number): LoadDraws {
    return drawLoads(parts, label, seeded(20_261_125), 100_000, ageShare);
  },
};

export type SizingSession = typeof session;
expose(session);
