import { boundToBe } from '../bound-to-be.ts';
import { conclude, nextStep, provingFirst, type Conclusion, type NextStep } from './conclusion.ts';
import { contradictionIn, mindChangers, type Contradiction, type MindChanger } from './contradiction.ts';
import { suspects, type Suspect } from './explain.ts';
import { interlocksOf, type DangerSign, type Interlock } from './interlock.ts';
import { posterior, type Model, type Observation } from './model.ts';
import { lookedForFirst, rankChecks, type Bench, type NextCheck } from './next-check.ts';
import { lookingForFirst, twoFaultsIn, type FaultPair } from './two-faults.ts';

/** What the search is told besides what was observed. */
export interface SearchTerms {
  readonly bench: Bench;
  /** 0 to 1. */
  readonly stopProbability: number;
  /** What was found dangerous elsewhere, such as a rail too high. */
  readonly signs?: readonly DangerSign[];
}

/** Where a search stands: who is suspected, what is dangerous, what to do next. */
export interface Diagnosis {
  /** Likeliest first; with two faults at once how likely each is there, which sums to more than one. */
  readonly suspects: readonly Suspect[];
  /** Two faults at once, where that explains what was seen better than any one; `firstId` is looked for first. */
  readonly twoFaults: {
    readonly probability: number;
    readonly pairs: readonly FaultPair[];
    readonly firstId: string;
  } | null;
  readonly nextChecks: readonly NextCheck[];
  readonly conclusion: Conclusion;
  readonly interlocks: readonly Interlock[];
  readonly step: NextStep;
  /** Two outcomes that no fault explains together. */
  readonly contradiction: Contradiction | null;
  readonly mindChangers: readonly MindChanger[];
}

/** Everything the search says, by the same rules wherever it is asked. */
export function diagnose(
  model: Model,
  observations: readonly Observation[],
  { bench, stopProbability, signs = [] }: SearchTerms,
): Diagnosis {
  const interlocks = interlocksOf(model, observations, signs);
  const two = twoFaultsIn(model, observations);
  const looking = two === null ? model : lookingForFirst(model, observations, two);
  const probabilities = posterior(looking, observations);
  const alone = suspects(model, observations);
  const ranked = two === null ? alone : byProbability(model, alone, two.present);
  const first = two === null ? alone : byProbability(model, alone, probabilities);
  const conclusion = conclude(looking, observations, first, stopProbability);
  const proving = provingFirst(looking, rankChecks(looking, observations, bench, interlocks), conclusion);
  const nextChecks = lookedForFirst(looking, observations, proving);
  return {
    suspects: ranked,
    twoFaults: two === null ? null : { probability: two.probability, pairs: two.pairs, firstId: two.firstId },
    nextChecks,
    conclusion,
    interlocks,
    step: nextStep({ model: looking, observations, probabilities, interlocks }, nextChecks, conclusion),
    contradiction: contradictionIn(model, observations),
    mindChangers: mindChangers(nextChecks, boundToBe(first[0], 'suspect').faultId),
  };
}

const byProbability = (model: Model, list: readonly Suspect[], probabilities: Float64Array): Suspect[] =>
  list
    .map((suspect) => ({
      ...suspect,
      probability: boundToBe(probabilities[model.faultIndex.get(suspect.faultId) ?? -1], `fault ${suspect.faultId}`),
    }))
    .sort((a, b) => b.probability - a.probability || a.faultId.localeCompare(b.faultId));
