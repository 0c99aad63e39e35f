import { seeded } from '@fairwatt/core/simulate';
import {
  candidateRow,
  drawLoads,
  startRanking,
  type CandidateRow,
  type FitQuestion,
  type LoadDraws,
  type MachinePart,
  type RankedSupply,
  type SupplyLabel,
  type SupplyModel,
  type Weights,
} from '@fairwatt/core';

/** Judged between two looks at the clock. */
const atOnce = 20;

/** Lets what was said to the worker meanwhile be heard. */
const messagesRead = () =>
  new Promise<void>((resolve) => {
    setTimeout(resolve, 0);
  });

/**
 * A candidate without its supply, which the page has already, and without the findings that do not decide: thousands of
 * rows cross to the page at once.
 */
export type ThinRow = Omit<CandidateRow, 'model'> & { readonly modelId: string };

function thinRow(ranked: RankedSupply): ThinRow {
  const { model, load, ...row } = candidateRow(ranked);
  return { ...row, load: { ...load, findings: [], spread: null }, modelId: model.id };
}

/**
 * What the sizing worker does for its page.
 * @param sliceMilliseconds so long it judges without looking whether somebody wants something else
 */
export function newSizingSession(sliceMilliseconds = 60) {
  let supplies: readonly SupplyModel[] = [];
  // Counts the rankings asked for and stopped: one that is not the last gives up.
  let asked = 0;
  return {
    /** The shop's supplies, handed over once. */
    stock(list: readonly SupplyModel[]): void {
      supplies = list;
    },
    /**
     * All supplies judged and ranked; null where it was stopped, or something else was asked meanwhile.
     * @param tell called now and then with the share that is judged
     */
    async rank(
      question: FitQuestion,
      weights: Weights,
      currency: string,
      tell: (share: number) => void,
    ): Promise<ThinRow[] | null> {
      asked += 1;
      const mine = asked;
      const ranking = startRanking(supplies, question, weights, currency);
      while (ranking.share() < 1) {
        const until = performance.now() + sliceMilliseconds;
        do ranking.judge(atOnce);
        while (ranking.share() < 1 && performance.now() < until);
        if (ranking.share() === 1) break;
        tell(ranking.share());
        await messagesRead();
        if (mine !== asked) return null;
      }
      return ranking.ranked().map(thinRow);
    },
    /** Ends the ranking under way. */
    stop(): void {
      asked += 1;
    },
    /** 100,000 machines alike. */
    draw(parts: readonly MachinePart[], label: SupplyLabel | null, ageShare: number): LoadDraws {
      return drawLoads(parts, label, seeded(20_261_125), 100_000, ageShare);
    },
  };
}

export type SizingSession = ReturnType<typeof newSizingSession>;
