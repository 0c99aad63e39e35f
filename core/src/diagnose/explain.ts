/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
import { posterior, weigh, type Model, type Observation } from './model.ts';

export type Strength = 'strong' | 'fair' | 'slight';

/** What one outcome says about one fault. */
export interface Evidence {
  readonly checkId: string;
  readonly outcomeId: string;
  /** Weight of evidence in decibans after damping: positive speaks for the fault. */
  readonly decibans: number;
  readonly strength: Strength;
  readonly damped: boolean;
  readonly why: string;
}

/** A fault with its probability and the evidence for and against it. */
export interface Suspect {
  readonly faultId: string;
  readonly probability: number;
  readonly evidence: readonly Evidence[];
}

/** Words for a weight in decibans: strong from 10, fair from 5, slight from 1.5; below that it says nothing. */
export function strengthOf(decibans: number): Strength | null {
  const size = Math.abs(decibans);
  return size >= 10 ? 'strong' : size >= 5 ? 'fair' : size >= 1.5 ? 'slight' : null;
}

/**
 * All suspects, likeliest first, each with its evidence, strongest first.
 * The weight of an outcome for a fault is 10 log10 of P(outcome | fault) over P(outcome | any other fault),
 * the others weighed by their prior.
 */
export function suspects(model: Model, observations: readonly Observation[]): Suspect[] {
  const probabilities = posterior(model, observations);
  const prior = model.logPrior.map(Math.exp);
  const { weighted } = weigh(model, observations);
  return model.faults
    .map((fault, index): Suspect => {
      const evidence: Evidence[] = [];
      for (const { check, outcome, damping: byFault, likelihood: row } of weighted) {
        const damping = byFault[index]!;
        let others = 0;
        for (let other = 0; other < row.length; other += 1) if (other !== index) others += prior[other]! * row[other]!;
        const decibans = damping * 10 * Math.log10(row[index]! / (others / (1 - prior[index]!)));
        const strength = strengthOf(decibans);
        if (strength === null) continue;
        const definition = model.checks[check]!;
        const why =
          definition.rows.find((candidate) => candidate.faults !== 'others' && candidate.faults.includes(fault.id)) ??
          definition.rows.find((candidate) => candidate.faults === 'others');
        evidence.push({
          checkId: definition.id,
          outcomeId: definition.outcomes[outcome]!.id,
          decibans,
          strength,
          damped: damping < 1,
          why: why?.why ?? '',
        });
      }
      evidence.sort((a, b) => Math.abs(b.decibans) - Math.abs(a.decibans));
      return { faultId: fault.id, probability: probabilities[index]!, evidence };
    })
    .sort((a, b) => b.probability - a.probability || a.faultId.localeCompare(b.faultId));
}
