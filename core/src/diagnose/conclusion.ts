import type { Model, Observation } from './model.ts';
import type { Suspect } from './explain.ts';
import type { NextCheck } from './next-check.ts';

/** Where the search stands. */
export type Conclusion =
  /** Nothing was observed yet. */
  | { readonly state: 'untouched' }
  /** Still open; `leaderId` is the likeliest. */
  | { readonly state: 'open'; readonly leaderId: string; readonly probability: number }
  /** Likely enough, but its proving check is still to do. */
  | { readonly state: 'to-prove'; readonly leaderId: string; readonly probability: number; readonly cureId: string }
  /** Likely enough and proved by a cure or a swap: offered as the finding. */
  | { readonly state: 'offered'; readonly leaderId: string; readonly probability: number; readonly cureId: string }
  /** Likely enough and not a power fault: hand on. */
  | { readonly state: 'outside'; readonly leaderId: string; readonly probability: number };

/**
 * The stop rule. The leading fault, with those that share its cure or that one outcome proved together with it, above
 * `stopProbability`: offered as the finding when an outcome that cures or convicts proved it, else still to prove.
 * @param ranked from `suspects`
 * @param stopProbability 0 to 1, 0.9 unless the shop says otherwise
 */
export function conclude(model: Model, observations: readonly Observation[], ranked: readonly Suspect[], stopProbability: number): Conclusion {
  const leader = ranked[0];
  if (observations.length === 0 || leader === undefined) return { state: 'untouched' };
  const faultOf = (id: string) => model.faults[model.faultIndex.get(id)!]!;
  const fault = faultOf(leader.faultId);
  const together = ranked.filter((suspect) => faultOf(suspect.faultId).cure.id === fault.cure.id).reduce((sum, suspect) => sum + suspect.probability, 0);
  const proven = provenShare(model, observations, ranked, leader.faultId);
  const base = { leaderId: leader.faultId, probability: Math.min(1, Math.max(together, proven)) };
  if (base.probability < stopProbability) return { state: 'open', leaderId: leader.faultId, probability: leader.probability };
  if (fault.outside === true) return { state: 'outside', ...base };
  return { state: proven >= stopProbability ? 'offered' : 'to-prove', ...base, cureId: fault.cure.id };
}

/**
 * With a fault likely enough but not proved, what is worth most is the check that can prove it: those go first, the
 * quicker before the slower, the rest keep their order.
 */
export function provingFirst(model: Model, ranked: readonly NextCheck[], conclusion: Conclusion): NextCheck[] {
  if (conclusion.state !== 'to-prove') return [...ranked];
  const proves = (check: NextCheck) => model.checks[model.checkIndex.get(check.checkId)!]!.outcomes.some((outcome) => outcome.cures?.includes(conclusion.leaderId) === true);
  const proving = ranked.filter(proves).sort((a, b) => a.minutes - b.minutes);
  return [...proving, ...ranked.filter((check) => !proves(check))];
}

/** Below this many expected minutes saved a check does not pay. */
const worthMinutes = 0.05;

/**
 * What to do next: the check on top, or the leader's cure where the fault is likely enough and no check can prove it, or
 * where no check pays for its minutes any more.
 * @param ranked from `provingFirst`
 */
export function nextStep(model: Model, ranked: readonly NextCheck[], conclusion: Conclusion): { readonly do: 'check'; readonly checkId: string } | { readonly do: 'cure'; readonly faultId: string } | { readonly do: 'nothing' } {
  const top = ranked[0];
  if (conclusion.state === 'to-prove') {
    const proves = top !== undefined && model.checks[model.checkIndex.get(top.checkId)!]!.outcomes.some((outcome) => outcome.cures?.includes(conclusion.leaderId) === true);
    return proves ? { do: 'check', checkId: top.checkId } : { do: 'cure', faultId: conclusion.leaderId };
  }
  if (conclusion.state === 'open' && (top === undefined || top.savesMinutes < worthMinutes)) return { do: 'cure', faultId: conclusion.leaderId };
  return top === undefined ? { do: 'nothing' } : { do: 'check', checkId: top.checkId };
}

/** The largest share of the faults that one outcome proved together, among outcomes that prove the leader; 0 without one. */
function provenShare(model: Model, observations: readonly Observation[], ranked: readonly Suspect[], leaderId: string): number {
  let most = 0;
  for (const observation of observations) {
    const check = model.checkIndex.get(observation.checkId);
    const cures = check === undefined ? undefined : model.checks[check]!.outcomes.find((candidate) => candidate.id === observation.outcomeId)?.cures;
    if (cures?.includes(leaderId) !== true) continue;
    most = Math.max(most, ranked.filter((suspect) => cures.includes(suspect.faultId)).reduce((sum, suspect) => sum + suspect.probability, 0));
  }
  return most;
}
