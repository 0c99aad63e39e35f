/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
import {
  checkNamed,
  isFromFile,
  cureCosts,
  expectedRepairMinutes,
  repairCheckId,
  type CureCost,
  type Model,
  type Observation,
} from '../diagnose/index.ts';
import type { Move, Order } from './search.ts';

interface Branch {
  readonly weights: Float64Array;
  readonly observation: Observation;
}

const mass = (weights: Float64Array) => weights.reduce((sum, weight) => sum + weight, 0);
/** What is left to pay once this little of the probability is left. */
const nothing = 1e-12;

function branches(model: Model, weights: Float64Array, checkId: string): Branch[] {
  const index = model.checkIndex.get(checkId)!;
  const check = model.checks[index]!;
  return check.outcomes.map((outcome, position) => ({
    observation: { checkId, outcomeId: outcome.id },
    weights: weights.map((weight, fault) =>
      check.kind !== 'decide' && outcome.cures?.includes(model.faults[fault]!.id) === true
        ? 0
        : weight * model.likelihood[index]![position]![fault]!,
    ),
  }));
}

const afterCure = (weights: Float64Array, cure: CureCost) =>
  weights.map((weight, fault) => (cure.ends.includes(fault) ? 0 : weight));

/**
 * The least expected minutes to the end of the job that any order of checks and cures can reach, part penalties
 * counted: dynamic programming over every set of outcomes and tried cures. For models of a few checks only, each in an
 * evidence group of its own, so that nothing is damped.
 */
export function leastExpectedMinutes(model: Model): number {
  const cures = cureCosts(model);
  const checks = model.checks.filter(isFromFile);
  // A state is a number: for each check its outcome or none, for each cure whether it was tried.
  const place: number[] = [];
  let size = 1;
  for (const check of checks) {
    place.push(size);
    size *= check.outcomes.length + 1;
  }
  const curePlace = cures.map((_, index) => size * 2 ** index);
  const rows = checks.map((check) =>
    check.outcomes.map((outcome, position) =>
      model.likelihood[model.checkIndex.get(check.id)!]![position]!.map((value, fault) =>
        check.kind !== 'decide' && outcome.cures?.includes(model.faults[fault]!.id) === true ? 0 : value,
      ),
    ),
  );
  const known = new Map<number, number>();
  const value = (weights: Float64Array, state: number): number => {
    const all = mass(weights);
    if (all < nothing) return 0;
    const found = known.get(state);
    if (found !== undefined) return found;
    let least = expectedRepairMinutes(model, weights);
    for (let check = 0; check < checks.length; check += 1) {
      if (Math.floor(state / place[check]!) % (checks[check]!.outcomes.length + 1) !== 0) continue;
      let cost = all * checks[check]!.minutes;
      for (let outcome = 0; outcome < rows[check]!.length && cost < least; outcome += 1)
        cost += value(
          weights.map((weight, fault) => weight * rows[check]![outcome]![fault]!),
          state + place[check]! * (outcome + 1),
        );
      least = Math.min(least, cost);
    }
    for (let cure = 0; cure < cures.length; cure += 1) {
      const rest = afterCure(weights, cures[cure]!);
      const left = mass(rest);
      const cost = all * cures[cure]!.minutes + left * cures[cure]!.penalty;
      if (left < all && cost < least) least = Math.min(least, cost + value(rest, state + curePlace[cure]!));
    }
    known.set(state, least);
    return least;
  };
  return value(model.logPrior.map(Math.exp), 0);
}

/** The expected minutes of an order in the same world and by the same count. @throws when the order gives up */
export function expectedMinutesOf(model: Model, order: Order): number {
  const cures = cureCosts(model);
  const value = (weights: Float64Array, observations: readonly Observation[]): number => {
    const all = mass(weights);
    if (all < nothing) return 0;
    const move: Move = order(observations, { faultId: '', outcomes: new Map() });
    if (move.do === 'give-up') throw new Error('an order that gives up has no expected minutes to the end');
    if (move.do === 'check')
      return (
        all * checkNamed(model, move.checkId).minutes +
        branches(model, weights, move.checkId).reduce(
          (sum, branch) => sum + value(branch.weights, [...observations, branch.observation]),
          0,
        )
      );
    const cure = cures.find((candidate) => candidate.id === move.cureId)!;
    const rest = afterCure(weights, cure);
    return (
      all * cure.minutes +
      mass(rest) * cure.penalty +
      value(rest, [...observations, { checkId: repairCheckId(cure.id), outcomeId: 'same' }])
    );
  };
  return value(model.logPrior.map(Math.exp), []);
}

/** A small model out of a large one: these faults and checks, nothing else; no danger interrupts the search in it. */
export function part(model: Model, faultIds: readonly string[], checkIds: readonly string[]): Model['knowledge'] {
  const keep = (id: string) => faultIds.includes(id);
  const cures = new Set(model.faults.filter((fault) => keep(fault.id)).map((fault) => fault.cure.id));
  return {
    ...model.knowledge,
    dangers: [],
    faults: model.knowledge.faults
      .filter((fault) => keep(fault.id))
      .map((fault) => ({ ...fault, alsoEndedBy: fault.alsoEndedBy?.filter((cure) => cures.has(cure)) })),
    checks: model.knowledge.checks
      .filter((check) => checkIds.includes(check.id))
      .map((check) => {
        const rows = check.rows.flatMap((row) =>
          row.faults === 'others' ? [row] : row.faults.some(keep) ? [{ ...row, faults: row.faults.filter(keep) }] : [],
        );
        const named = new Set(rows.flatMap((row) => (row.faults === 'others' ? [] : row.faults)));
        return {
          ...check,
          evidence: check.id,
          after: undefined,
          afterOutcomes: undefined,
          needs: [],
          rows: rows.filter((row) => row.faults !== 'others' || faultIds.some((id) => !named.has(id))),
          // In so small a world a cure always stays to be tried, so that every order ends.
          outcomes: check.outcomes.map((outcome) => ({
            ...outcome,
            cures: outcome.cures?.filter(keep),
            tries: undefined,
          })),
        };
      }),
  };
}
