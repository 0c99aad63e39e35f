/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
import { weigh, type Model, type Observation, type Weighted } from './model.ts';
import type { NextCheck } from './next-check.ts';

/** Two outcomes that no fault explains together. */
export interface Contradiction {
  readonly pair: readonly [Pick<Observation, 'checkId' | 'outcomeId'>, Pick<Observation, 'checkId' | 'outcomeId'>];
  /** How many times less likely together than if they had nothing to do with each other. */
  readonly timesLess: number;
  /** The fault that explains both least badly. */
  readonly leastBadId: string;
}

/** A pair counts as contradicting when it is this many times less likely together than apart ... */
export const contradictionTimes = 10;
/** ... and no fault explains it at this share of how well others explain each outcome by itself. */
export const leastExplained = 0.1;

/**
 * The pair of outcomes that contradict each other most; null when every pair has a fault that explains it.
 * Measure of conflict: the product of the outcomes' probabilities over their joint one (Jensen, Chamberlain, Nordahl
 * and Jensen 1990); besides, no single fault may explain both.
 */
export function contradictionIn(model: Model, observations: readonly Observation[]): Contradiction | null {
  const { weighted } = weigh(model, observations);
  const prior = model.logPrior.map(Math.exp);
  const alone = weighted.map(({ likelihood }) => ({
    probability: likelihood.reduce((sum, value, fault) => sum + value * prior[fault]!, 0),
    most: Math.max(...likelihood),
  }));
  const named = ({ check, outcome }: Weighted) => ({
    checkId: model.checks[check]!.id,
    outcomeId: model.checks[check]!.outcomes[outcome]!.id,
  });
  let worst: Contradiction | null = null;
  for (let a = 0; a < weighted.length; a += 1) {
    for (let b = a + 1; b < weighted.length; b += 1) {
      let joint = 0;
      let explained = 0;
      let leastBad = 0;
      for (let fault = 0; fault < prior.length; fault += 1) {
        const both = weighted[a]!.likelihood[fault]! * weighted[b]!.likelihood[fault]!;
        joint += prior[fault]! * both;
        const share = both / (alone[a]!.most * alone[b]!.most);
        if (share > explained) {
          explained = share;
          leastBad = fault;
        }
      }
      const timesLess = (alone[a]!.probability * alone[b]!.probability) / joint;
      if (timesLess < contradictionTimes || explained >= leastExplained || timesLess <= (worst?.timesLess ?? 0))
        continue;
      worst = { pair: [named(weighted[a]!), named(weighted[b]!)], timesLess, leastBadId: model.faults[leastBad]!.id };
    }
  }
  return worst;
}

/** An outcome still to be seen that would put another fault first. */
export interface MindChanger {
  readonly checkId: string;
  readonly outcomeId: string;
  /** How likely this outcome is now. */
  readonly probability: number;
  readonly leaderId: string;
  readonly leaderProbability: number;
}

/**
 * What would change the mind: outcomes of the checks that can be done now which would put another fault first, the
 * likeliest first, one for each check.
 */
export function mindChangers(nextChecks: readonly NextCheck[], leaderId: string, most = 3): MindChanger[] {
  return nextChecks
    .flatMap((check): MindChanger[] =>
      check.previews
        .filter((preview) => preview.leaderId !== leaderId)
        .sort((a, b) => b.probability - a.probability)
        .slice(0, 1)
        .map((preview) => ({
          checkId: check.checkId,
          outcomeId: preview.outcomeId,
          probability: preview.probability,
          leaderId: preview.leaderId,
          leaderProbability: preview.leaderProbability,
        })),
    )
    .sort((a, b) => b.probability - a.probability || a.checkId.localeCompare(b.checkId))
    .slice(0, most);
}
