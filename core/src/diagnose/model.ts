/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
import { boundToBe } from '../bound-to-be.ts';
import { groupBy } from '../group-by.ts';
import { emptyRecord, learn, type ShopRecord } from './learn.ts';
import { dampingByFault } from './damping.ts';
import { safetyChecks } from './interlock.ts';
import { repairChecks } from './repair.ts';
import { rowFor, type About, type Check, type Fault, type Knowledge } from './knowledge.ts';

/** One answered check. `unknown` carries no weight. */
export interface Observation {
  readonly checkId: string;
  readonly outcomeId: string;
  /** The instrument that gave it, whose own record may give its word another weight. */
  readonly instrumentId?: string | null | undefined;
  /** When it was noted, as an ISO instant; what was made safe is compared with what was seen by it. */
  readonly at?: string | null | undefined;
}

/** What the outcomes of one check say, by outcome and fault. */
export interface Rows {
  /** P(outcome | fault). */
  readonly likelihood: readonly Float64Array[];
  /**
   * Natural logarithm of P(outcome | fault) over P(outcome), the latter by the priors over all faults: above nothing
   * where the outcome speaks for the fault, below where it speaks against it.
   */
  readonly says: readonly Float64Array[];
}

/** The knowledge in a form that computes fast; made once per knowledge file. */
export interface Model {
  /** As it is in the file. */
  readonly shipped: Knowledge;
  readonly faults: readonly Fault[];
  /** The knowledge that holds here: shipped, moved by the shop's record. */
  readonly knowledge: Knowledge;
  /** Those of the file, one for each cure that may have been tried, and one for each danger that can be made safe. */
  readonly checks: readonly Check[];
  readonly faultIndex: ReadonlyMap<string, number>;
  readonly checkIndex: ReadonlyMap<string, number>;
  /** Natural logarithm of the normalised priors. */
  readonly logPrior: Float64Array;
  /** P(outcome | fault) as [check][outcome][fault]. */
  readonly likelihood: readonly (readonly Float64Array[])[];
  /** As in `Rows`, by check. */
  readonly says: readonly (readonly Float64Array[])[];
  /** Rows that hold for one instrument, by `CHECK|INSTRUMENT`. */
  readonly byInstrument: ReadonlyMap<string, Rows>;
  /** Parts that the machine has not: checks about them are not offered. */
  readonly absent: ReadonlySet<About>;
}

/** @throws RangeError where the model has no such fault */
export const faultNamed = ({ faults, faultIndex }: Model, id: string): Fault =>
  boundToBe(faults[faultIndex.get(id) ?? -1], `fault ${id}`);

/** @throws RangeError where the model has no such check */
export const checkNamed = ({ checks, checkIndex }: Model, id: string): Check =>
  boundToBe(checks[checkIndex.get(id) ?? -1], `check ${id}`);

/** The logarithm of each row over what was to be expected by the priors. */
function saysOf(rows: readonly Float64Array[], prior: Float64Array): Float64Array[] {
  return rows.map((row) => {
    const expected = row.reduce((sum, value, fault) => sum + prior[fault]! * value, 0);
    return row.map((value) => Math.log(value / expected));
  });
}

/**
 * Compiles validated knowledge, moved by the shop's own record where one is given.
 * @throws when a fault has no row in a check, which `validateKnowledge` reports first
 */
export function compileModel(shipped: Knowledge, record: ShopRecord = emptyRecord): Model {
  const { knowledge, instruments } = learn(shipped, record);
  const { faults } = knowledge;
  const checks = [...knowledge.checks, ...repairChecks(faults), ...safetyChecks(knowledge.dangers)];
  const total = faults.reduce((sum, fault) => sum + fault.prior, 0);
  const likelihood = checks.map((check) =>
    check.outcomes.map((_, outcome) =>
      Float64Array.from(faults, (fault) => {
        const weight = rowFor(check, fault.id)?.weights[outcome];
        if (weight === undefined) throw new Error(`no weight for ${fault.id} in ${check.id}`);
        return weight / 100;
      }),
    ),
  );
  const prior = Float64Array.from(faults, (fault) => fault.prior / total);
  return {
    shipped,
    knowledge,
    faults,
    checks,
    faultIndex: new Map(faults.map((fault, index) => [fault.id, index])),
    checkIndex: new Map(checks.map((check, index) => [check.id, index])),
    logPrior: prior.map(Math.log),
    likelihood,
    says: likelihood.map((rows) => saysOf(rows, prior)),
    byInstrument: new Map(
      instruments.map(({ checkId, instrumentId, byFault }): [string, Rows] => {
        const index = checks.findIndex((check) => check.id === checkId);
        const rows = likelihood[index]!.map((row, outcome) =>
          Float64Array.from(faults, (fault, position) => byFault.get(fault.id)?.[outcome] ?? row[position]!),
        );
        return [`${checkId}|${instrumentId}`, { likelihood: rows, says: saysOf(rows, prior) }];
      }),
    ),
    absent: new Set(),
  };
}

/**
 * The model without the faults of what a machine has not: priors and what an outcome says are by the faults that are
 * left. Every check stays, since an answer that was given counts; those about what is absent are not offered.
 */
export function restricted(model: Model, absent: ReadonlySet<About>): Model {
  const isThere = ({ about }: { readonly about?: About | undefined }) => about === undefined || !absent.has(about);
  const kept = model.faults.flatMap((fault, index) => (isThere(fault) ? [index] : []));
  const faults = kept.map((index) => model.faults[index]!);
  const ids = new Set(faults.map(({ id }) => id));
  const pick = (row: Float64Array) => Float64Array.from(kept, (index) => row[index]!);
  const prior = normalise(pick(model.logPrior));
  const rowsOf = (rows: readonly Float64Array[]): Rows => {
    const likelihood = rows.map(pick);
    return { likelihood, says: saysOf(likelihood, prior) };
  };
  const byCheck = model.likelihood.map(rowsOf);
  return {
    ...model,
    faults,
    checks: model.checks.map((check) => ({
      ...check,
      outcomes: check.outcomes.map((outcome) =>
        outcome.cures === undefined ? outcome : { ...outcome, cures: outcome.cures.filter((id) => ids.has(id)) },
      ),
    })),
    faultIndex: new Map(faults.map(({ id }, index) => [id, index])),
    logPrior: prior.map(Math.log),
    likelihood: byCheck.map((rows) => rows.likelihood),
    says: byCheck.map((rows) => rows.says),
    byInstrument: new Map([...model.byInstrument].map(([key, rows]) => [key, rowsOf(rows.likelihood)])),
    absent,
  };
}

/** An observation that counts, with its damping. */
export interface Weighted {
  readonly check: number;
  readonly outcome: number;
  /** What it counts for each fault, 0 to 1, from `dampingOf` over its evidence group. */
  readonly damping: Float64Array;
  /** P(outcome | fault) by fault, of this instrument where it has a record of its own. */
  readonly likelihood: Float64Array;
  /** The same for every outcome of the check. */
  readonly rows: readonly Float64Array[];
  /** As in `Rows`. */
  readonly says: Float64Array;
}

/**
 * Observations with what each counts for each fault, whatever the order they came in; those of no known check apart.
 */
export function weigh(
  model: Model,
  observations: readonly Observation[],
): { weighted: Weighted[]; notCounted: Observation[] } {
  const notCounted: Observation[] = [];
  const known: Omit<Weighted, 'damping'>[] = [];
  for (const observation of observations) {
    const check = model.checkIndex.get(observation.checkId) ?? -1;
    const outcome = model.checks[check]?.outcomes.findIndex(({ id }) => id === observation.outcomeId) ?? -1;
    if (outcome < 0) {
      notCounted.push(observation);
      continue;
    }
    const own =
      observation.instrumentId == null
        ? undefined
        : model.byInstrument.get(`${observation.checkId}|${observation.instrumentId}`);
    known.push({
      check,
      outcome,
      rows: own?.likelihood ?? model.likelihood[check]!,
      likelihood: (own?.likelihood ?? model.likelihood[check]!)[outcome]!,
      says: (own?.says ?? model.says[check]!)[outcome]!,
    });
  }
  known.sort((a, b) => a.check - b.check || a.outcome - b.outcome);
  const groups = groupBy(known, ({ check }) => model.checks[check]!.evidence);
  const weighted = [...groups.values()].flatMap((group) => {
    const damping = dampingByFault(group.map(({ says }) => says));
    return group.map((item, position) => ({ ...item, damping: damping[position]! }));
  });
  return { weighted, notCounted };
}

/** Normalises log weights into probabilities without overflow. */
export function normalise(logWeights: Float64Array): Float64Array {
  let most = -Infinity;
  for (const value of logWeights) if (value > most) most = value;
  const out = logWeights.map((value) => Math.exp(value - most));
  let sum = 0;
  for (const value of out) sum += value;
  return out.map((value) => value / sum);
}

/** Posterior over the faults, one fault assumed: prior times what the outcomes say, damped, in log space. */
export function posterior(model: Model, observations: readonly Observation[]): Float64Array {
  const log = Float64Array.from(model.logPrior);
  for (const { damping, says } of weigh(model, observations).weighted) {
    for (let fault = 0; fault < log.length; fault += 1) log[fault]! += damping[fault]! * says[fault]!;
  }
  return normalise(log);
}
