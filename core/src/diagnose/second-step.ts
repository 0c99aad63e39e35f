/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
import { groupBy } from '../group-by.ts';
import { saidTogether } from './damping.ts';
import { weigh, type Model, type Observation } from './model.ts';
import { cureCosts, expectedRepairMinutes, type CureCost } from './remaining-time.ts';

/** What an outcome leaves to be paid for, by fault: a check that cures ends the job there and then. */
export type Unpaid = Float64Array;

/** A check that may be the second step. */
export interface SecondStep {
  readonly minutes: number;
  /** P(outcome | fault) by outcome. */
  readonly rows: readonly Float64Array[];
  /**
   * What each outcome multiplies the weights by, damped by what its evidence group showed; the rows where that is
   * nothing.
   */
  readonly damped: readonly Float64Array[];
  /** By outcome the faults that it ends, null where it ends none. */
  readonly ends: readonly (readonly number[] | null)[];
}

/** The faults that an outcome of this check ends at once; none for a swap, which only convicts. */
export function endsAtOnce(model: Model, index: number, outcome: number): readonly number[] | null {
  const check = model.checks[index]!;
  const { cures } = check.outcomes[outcome]!;
  return cures === undefined || check.kind === 'decide' ? null : cures.map((id) => model.faultIndex.get(id)!);
}

/**
 * A check as second step. @param before what the outcomes of its evidence group said that were seen already, by fault
 */
export function secondStep(model: Model, index: number, before: readonly Float64Array[]): SecondStep {
  const check = model.checks[index]!;
  const rows = model.likelihood[index]!;
  const said = before.length === 0 ? null : saidTogether(before);
  return {
    minutes: check.minutes,
    rows,
    damped:
      said === null
        ? rows
        : model.says[index]!.map((says) =>
            saidTogether([...before, says]).map((value, fault) => Math.exp(value - said[fault]!)),
          ),
    ends: check.outcomes.map((_, outcome) => endsAtOnce(model, index, outcome)),
  };
}

/** Expected minutes from what is left when one more check may be done before the cures, the best of those given. */
export function minutesWithOneMore(
  model: Model,
  unpaid: Unpaid,
  seconds: readonly SecondStep[],
  work: Float64Array,
): number {
  let least = expectedRepairMinutes(model, unpaid);
  let all = 0;
  for (let fault = 0; fault < unpaid.length; fault += 1) all += unpaid[fault]!;
  for (const second of seconds) {
    let cost = all * second.minutes;
    for (let outcome = 0; outcome < second.rows.length && cost < least; outcome += 1) {
      const row = second.rows[outcome]!;
      const damped = second.damped[outcome]!;
      if (row === damped)
        for (let fault = 0; fault < unpaid.length; fault += 1) work[fault] = unpaid[fault]! * row[fault]!;
      else {
        let probability = 0;
        let sum = 0;
        for (let fault = 0; fault < unpaid.length; fault += 1) {
          probability += unpaid[fault]! * row[fault]!;
          sum += work[fault] = unpaid[fault]! * damped[fault]!;
        }
        const scale = sum > 0 ? probability / sum : 0;
        for (let fault = 0; fault < unpaid.length; fault += 1) work[fault]! *= scale;
      }
      const ended = second.ends[outcome];
      if (ended != null) for (const fault of ended) work[fault] = 0;
      cost += expectedRepairMinutes(model, work);
    }
    if (cost < least) least = cost;
  }
  return least;
}

/** What the outcomes said that were seen, by evidence group. */
export function seenByGroup(
  model: Model,
  observations: readonly Observation[],
): (group: string) => readonly Float64Array[] {
  const seen = groupBy(weigh(model, observations).weighted, ({ check }) => model.checks[check]!.evidence);
  return (group) => seen.get(group)?.map(({ says }) => says) ?? [];
}

/** Cures that are looked at, those with the most probability for their cost. */
const curesLookedAt = 5;

const sumOf = (weights: Float64Array) => weights.reduce((sum, weight) => sum + weight, 0);

function without(weights: Float64Array, cure: CureCost): Float64Array {
  const left = Float64Array.from(weights);
  for (const fault of cure.ends) left[fault] = 0;
  return left;
}

/**
 * The cure that is worth doing before any more checks, with the expected minutes from here when at most one check
 * follows it: a cheap cure of a likely fault may be quicker than finding out. Null when none is allowed.
 * @param checkIds checks that may follow, the likeliest to pay first
 */
export function bestCureFirst(
  model: Model,
  observations: readonly Observation[],
  probabilities: Float64Array,
  checkIds: readonly string[],
  allowed: (cureId: string) => boolean,
): { readonly cureId: string; readonly minutes: number } | null {
  const seen = seenByGroup(model, observations);
  const seconds = checkIds.map((id) => {
    const index = model.checkIndex.get(id)!;
    return secondStep(model, index, seen(model.checks[index]!.evidence));
  });
  const work = new Float64Array(model.faults.length);
  const worth = (cure: CureCost) =>
    cure.ends.reduce((sum, fault) => sum + probabilities[fault]!, 0) / (cure.minutes + cure.penalty);
  const cures = cureCosts(model)
    .filter((cure) => allowed(cure.id))
    .sort((a, b) => worth(b) - worth(a))
    .slice(0, curesLookedAt);
  let best: { readonly cureId: string; readonly minutes: number } | null = null;
  for (const first of cures) {
    const left = without(probabilities, first);
    const remaining = sumOf(left);
    let rest = minutesWithOneMore(model, left, seconds, work);
    // A second cheap cure may come before the check as well.
    for (const second of cures) {
      const last = without(left, second);
      const open = sumOf(last);
      if (open === remaining) continue;
      const start = remaining * second.minutes + open * second.penalty;
      if (start < rest) rest = Math.min(rest, start + minutesWithOneMore(model, last, seconds, work));
    }
    const minutes = first.minutes + remaining * first.penalty + rest;
    if (best === null || minutes < best.minutes) best = { cureId: first.id, minutes };
  }
  return best;
}
