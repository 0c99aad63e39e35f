/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
import { groupBy } from '../group-by.ts';
import { saidTogether } from './damping.ts';
import { isEndedBy, type Check, type Fault } from './knowledge.ts';
import { normalise, weigh, type Model, type Observation, type Weighted, faultNamed } from './model.ts';
import { triedCures } from './repair.ts';

/** Share of machines that come with two faults that have nothing to do with each other. Bench judgement. */
export const doubleShare = 0.03;
/** Two faults are offered once they are likelier than any one. */
export const offeredFrom = 0.5;
/** How often it is seen that one of two was ended, where a check asks for that. Bench judgement. */
export const partlySeen = 0.6;

/** Two faults at once. */
export interface FaultPair {
  readonly faultIds: readonly [string, string];
  /** Of all that may be, single faults included. */
  readonly probability: number;
}

export interface TwoFaults {
  /** That there are two. */
  readonly probability: number;
  /** The likeliest first, three at most. */
  readonly pairs: readonly FaultPair[];
  /** How likely each fault of the model is there, alone or with another; sums to more than one. */
  readonly present: Float64Array;
  /** Which of the likeliest pair is looked for first: the one whose cure was not tried yet, the quicker. */
  readonly firstId: string;
}

/**
 * P(outcome | both faults), from what each says alone.
 * - Told: a machine with two faults shows now the one and now the other, so the mean of both.
 * - Where an outcome cures: the complaint is gone only if that ended both, so the product. If it ended one of them,
 *   that is seen as "better" in `partlySeen` of the cases where the check has such an outcome.
 * - Anything else: each moves the odds of an outcome against what is usual by its own factor, as causes do that do not
 *   know of each other; with a fault that has nothing to do with the check that is what the other says alone.
 * @param a, b P(outcome | fault) by outcome
 * @param base the same where no fault has to do with the check
 * @returns P(outcome | both) by outcome, summing to 1
 */
export function bothSay(
  check: Pick<Check, 'kind' | 'outcomes'>,
  a: ArrayLike<number>,
  b: ArrayLike<number>,
  base: ArrayLike<number>,
): number[] {
  if (check.kind === 'told') return check.outcomes.map((_, outcome) => (a[outcome]! + b[outcome]!) / 2);
  const fixed = check.outcomes.map((outcome, index): number | null => {
    if (outcome.cures !== undefined) return a[index]! * b[index]!;
    if (outcome.partly !== true) return null;
    const cured = check.outcomes.findIndex(({ cures }) => cures !== undefined);
    const one = a[cured]! * (1 - b[cured]!) + b[cured]! * (1 - a[cured]!);
    return partlySeen * one;
  });
  const joint = fixed.map((value, index) => value ?? (a[index]! * b[index]!) / base[index]!);
  const taken = fixed.reduce<number>((sum, value) => sum + (value ?? 0), 0);
  const rest = joint.reduce((sum, value, index) => (fixed[index] === null ? sum + value : sum), 0);
  return joint.map((value, index) => (fixed[index] === null ? (value * (1 - taken)) / rest : value));
}

/** Pairs of a model by the indexes of their faults, with the logarithm of their normalised priors. */
interface Pairs {
  readonly first: Int32Array;
  readonly second: Int32Array;
  readonly logPrior: Float64Array;
  /** `bothSay` by outcome and pair, for rows that were asked for once. */
  readonly rows: WeakMap<readonly Float64Array[], Float64Array[]>;
}
const known = new WeakMap<Model, Pairs>();

/** Two faults that one repair ends are one to the bench; a well machine, or a job of somebody else, is none. */
function pairsOf(model: Model): Pairs {
  const found = known.get(model);
  if (found !== undefined) return found;
  const able = ({ healthy, outside }: Fault) => healthy !== true && outside !== true;
  const apart = (a: Fault, b: Fault) => !isEndedBy(a, b.cure.id) && !isEndedBy(b, a.cure.id);
  const pairs = model.faults.flatMap((one, a) =>
    model.faults.flatMap((other, b) => (b > a && able(one) && able(other) && apart(one, other) ? [{ a, b }] : [])),
  );
  const log = Float64Array.from(pairs, ({ a, b }) => model.logPrior[a]! + model.logPrior[b]!);
  const made: Pairs = {
    first: Int32Array.from(pairs, ({ a }) => a),
    second: Int32Array.from(pairs, ({ b }) => b),
    logPrior: normalise(log).map(Math.log),
    rows: new WeakMap(),
  };
  known.set(model, made);
  return made;
}

/**
 * What is usual, by outcome, where a fault has nothing to do with a check: the row of "others", else the mean by the
 * priors.
 */
function usual(model: Model, check: Check, rows: readonly Float64Array[]): number[] {
  const others = check.rows.find((row) => row.faults === 'others');
  if (others !== undefined) return others.weights.map((weight) => weight / 100);
  return rows.map((row) => row.reduce((sum, value, fault) => sum + Math.exp(model.logPrior[fault]!) * value, 0));
}

/** P(outcome | pair) by outcome and pair. @param rows P(outcome | fault) by outcome and fault */
function pairRows(model: Model, pairs: Pairs, check: Check, rows: readonly Float64Array[]): Float64Array[] {
  const found = pairs.rows.get(rows);
  if (found !== undefined) return found;
  const base = usual(model, check, rows);
  const columns = model.faults.map((_, fault) => rows.map((row) => row[fault]!));
  const made = rows.map(() => new Float64Array(pairs.first.length));
  pairs.first.forEach((a, pair) => {
    bothSay(check, columns[a]!, columns[pairs.second[pair]!]!, base).forEach((value, outcome) => {
      made[outcome]![pair] = value;
    });
  });
  pairs.rows.set(rows, made);
  return made;
}

/**
 * Log weights of all pairs: prior and what the outcomes say, damped within their evidence group as for single faults.
 */
function weighPairs(model: Model, pairs: Pairs, weighted: readonly Weighted[]): Float64Array {
  const log = pairs.logPrior.map((value) => value + Math.log(doubleShare));
  for (const group of groupBy(weighted, ({ check }) => model.checks[check]!.evidence).values()) {
    const said = saidTogether(
      group.map(({ check, outcome, rows, likelihood, says }) => {
        // The same yardstick as for single faults: what was to be expected by the priors.
        const expected = Math.log(likelihood[0]!) - says[0]!;
        return pairRows(model, pairs, model.checks[check]!, rows)[outcome]!.map((value) => Math.log(value) - expected);
      }),
    );
    for (let pair = 0; pair < log.length; pair += 1) log[pair]! += said[pair]!;
  }
  return log;
}

/**
 * Whether two faults at once explain what was seen better than any one, by Bayes over all single faults and all pairs;
 * null where they do not. The prior of the pairs together is `doubleShare`, each by the product of its faults' priors.
 */
export function twoFaultsIn(model: Model, observations: readonly Observation[]): TwoFaults | null {
  const { weighted } = weigh(model, observations);
  // Whatever one outcome is, some single fault explains it.
  if (weighted.length < 2) return null;
  const pairs = pairsOf(model);
  const single = model.logPrior.map((value) => value + Math.log(1 - doubleShare));
  for (const { damping, says } of weighted)
    for (let fault = 0; fault < single.length; fault += 1) single[fault]! += damping[fault]! * says[fault]!;
  const all = normalise(Float64Array.from([...single, ...weighPairs(model, pairs, weighted)]));
  const present = all.slice(0, single.length);
  const share = all.slice(single.length);
  const probability = share.reduce((sum, value) => sum + value, 0);
  if (probability < offeredFrom) return null;
  share.forEach((value, pair) => {
    present[pairs.first[pair]!]! += value;
    present[pairs.second[pair]!]! += value;
  });
  const likeliest = [...share.keys()].sort((a, b) => share[b]! - share[a]! || a - b).slice(0, 3);
  const named = likeliest.map((pair): FaultPair => ({
    faultIds: [model.faults[pairs.first[pair]!]!.id, model.faults[pairs.second[pair]!]!.id],
    probability: share[pair]!,
  }));
  return { probability, pairs: named, present, firstId: firstOf(model, observations, named[0]!) };
}

function firstOf(model: Model, observations: readonly Observation[], { faultIds: [a, b] }: FaultPair): string {
  const tried = triedCures(model, observations);
  const cureOf = (id: string) => faultNamed(model, id).cure;
  const [triedA, triedB] = [tried.has(cureOf(a).id), tried.has(cureOf(b).id)];
  if (triedA !== triedB) return triedA ? b : a;
  return cureOf(b).minutes < cureOf(a).minutes ? b : a;
}

/**
 * The model with which the search goes on while two faults are likelier than one: what it says of the first of the two
 * is how likely that one is there, and the others share the rest by how likely they are there. Checks and cures are
 * then found for the first; once its cure was tried, for the second.
 */
export function lookingForFirst(model: Model, observations: readonly Observation[], two: TwoFaults): Model {
  const first = model.faultIndex.get(two.firstId)!;
  const sure = Math.min(two.present[first]!, 0.999);
  const others = two.present.reduce((sum, value, fault) => (fault === first ? sum : sum + value), 0);
  const before = two.present.map((value, fault) => Math.log(fault === first ? sure : ((1 - sure) * value) / others));
  for (const { damping, says } of weigh(model, observations).weighted)
    for (let fault = 0; fault < before.length; fault += 1) before[fault]! -= damping[fault]! * says[fault]!;
  return { ...model, logPrior: normalise(before).map(Math.log) };
}
