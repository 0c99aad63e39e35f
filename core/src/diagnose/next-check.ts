import type { Hazard, Need } from './knowledge.ts';
import { posterior, weigh, type Model, type Observation } from './model.ts';
import { expectedRepairMinutes } from './remaining-time.ts';

/** What the bench has; a check that needs something else is left out. */
export interface Bench {
  readonly has: readonly Need[];
  /** Allowed to work at mains beyond swapping lead and outlet; without it nothing is offered that asks for more. */
  readonly maySwapMains: boolean;
}

/** What one outcome of a check would do. */
export interface OutcomePreview {
  readonly outcomeId: string;
  readonly probability: number;
  readonly leaderId: string;
  readonly leaderProbability: number;
}

/** A check that is worth doing next. */
export interface NextCheck {
  readonly checkId: string;
  readonly minutes: number;
  readonly hazard: Hazard;
  readonly needs: readonly Need[];
  /** Expected minutes to the end of the job that it saves against trying cures at once; may be negative. */
  readonly savesMinutes: number;
  readonly previews: readonly OutcomePreview[];
}

/** Differences below this many minutes count as near equal, so that the safer check goes first. */
export const nearMinutes = 0.5;
const hazardRank: Record<Hazard, number> = { none: 0, low: 1, mains: 2 };

/** Does the machine stay on, as far as is known? Null when nobody said. */
export function machineRuns(model: Model, observations: readonly Observation[]): boolean | null {
  const told = observations.find((observation) => observation.checkId === 'told-button');
  if (!told) return null;
  const check = model.checkIndex.get('told-button');
  const outcome = check === undefined ? undefined : model.checks[check]!.outcomes.find((candidate) => candidate.id === told.outcomeId);
  return outcome === undefined ? null : outcome.stands !== true;
}

function available(model: Model, index: number, observations: readonly Observation[], bench: Bench, runs: boolean | null): boolean {
  const check = model.checks[index]!;
  if (observations.some((observation) => observation.checkId === check.id)) return false;
  if (check.after !== undefined && !observations.some((observation) => observation.checkId === check.after)) return false;
  if (check.hazard === 'mains' && !bench.maySwapMains) return false;
  return check.needs.every((need) => (need === 'running' ? runs !== false : bench.has.includes(need)));
}

/**
 * Every check that can be done now, best first: by expected remaining minutes one step ahead (its own minutes, then
 * cures in their best order), the safer and then the quicker among near equals.
 * @param observations outcomes so far; an answered check, also with `unknown`, is not offered again
 */
export function rankChecks(model: Model, observations: readonly Observation[], bench: Bench): NextCheck[] {
  const now = posterior(model, observations);
  const base = expectedRepairMinutes(model, now);
  const runs = machineRuns(model, observations);
  const used = new Map<string, number>();
  for (const { check } of weigh(model, observations).weighted) {
    const group = model.checks[check]!.evidence;
    used.set(group, (used.get(group) ?? 0) + 1);
  }
  const ranked: NextCheck[] = [];
  for (let index = 0; index < model.checks.length; index += 1) {
    if (!available(model, index, observations, bench, runs)) continue;
    const check = model.checks[index]!;
    let expected = check.minutes;
    const previews: OutcomePreview[] = check.outcomes.map((outcome, outcomeIndex) => {
      const row = model.likelihood[index]![outcomeIndex]!;
      let probability = 0;
      for (let fault = 0; fault < now.length; fault += 1) probability += now[fault]! * row[fault]!;
      const then = (used.get(check.evidence) ?? 0) === 0
        ? now.map((value, fault) => (value * row[fault]!) / probability)
        : posterior(model, [...observations, { checkId: check.id, outcomeId: outcome.id }]);
      let leader = 0;
      for (let fault = 1; fault < then.length; fault += 1) if (then[fault]! > then[leader]!) leader = fault;
      const ended = check.kind === 'decide' ? [] : (outcome.cures ?? []);
      const rest = ended.length === 0 ? then : then.map((value, fault) => (ended.includes(model.faults[fault]!.id) ? 0 : value));
      expected += probability * expectedRepairMinutes(model, rest);
      return { outcomeId: outcome.id, probability, leaderId: model.faults[leader]!.id, leaderProbability: then[leader]! };
    });
    ranked.push({ checkId: check.id, minutes: check.minutes, hazard: check.hazard, needs: check.needs, savesMinutes: base - expected, previews });
  }
  ranked.sort((a, b) => b.savesMinutes - a.savesMinutes || a.checkId.localeCompare(b.checkId));
  return saferFirst(ranked);
}

function saferFirst(ranked: readonly NextCheck[]): NextCheck[] {
  const out: NextCheck[] = [];
  const left = [...ranked];
  while (left.length > 0) {
    const near = left.filter((check) => left[0]!.savesMinutes - check.savesMinutes <= nearMinutes);
    near.sort((a, b) => hazardRank[a.hazard] - hazardRank[b.hazard] || a.minutes - b.minutes || b.savesMinutes - a.savesMinutes);
    const best = near[0]!;
    out.push(best);
    left.splice(left.indexOf(best), 1);
  }
  return out;
}

