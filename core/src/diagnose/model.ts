import { emptyRecord, learn, type ShopRecord } from './learn.ts';
import { safetyChecks } from './interlock.ts';
import { repairChecks } from './repair.ts';
import { rowFor, type Check, type Fault, type Knowledge } from './knowledge.ts';

/** One answered check. `unknown` carries no weight. */
export interface Observation {
  readonly checkId: string;
  readonly outcomeId: string;
  /** The instrument that gave it, whose own record may give its word another weight. */
  readonly instrumentId?: string | null | undefined;
  /** When it was noted, as an ISO instant; what was made safe is compared with what was seen by it. */
  readonly at?: string | null | undefined;
}

/** P(outcome | fault) of one check by outcome and fault, and its natural logarithms. */
export interface Rows {
  readonly likelihood: readonly Float64Array[];
  readonly logLikelihood: readonly Float64Array[];
}

/** Weight of the second, third ... outcome of an evidence group: 1, 1/2, 1/4 ... by falling strength. */
export const groupDamping = 0.5;

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
  /** Natural logarithms of `likelihood`. */
  readonly logLikelihood: readonly (readonly Float64Array[])[];
  /** Rows that hold for one instrument, by `CHECK|INSTRUMENT`. */
  readonly byInstrument: ReadonlyMap<string, Rows>;
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
  return {
    shipped,
    knowledge,
    faults,
    checks,
    faultIndex: new Map(faults.map((fault, index) => [fault.id, index])),
    checkIndex: new Map(checks.map((check, index) => [check.id, index])),
    logPrior: Float64Array.from(faults, (fault) => Math.log(fault.prior / total)),
    likelihood,
    logLikelihood: likelihood.map((outcomes) => outcomes.map((row) => row.map(Math.log))),
    byInstrument: new Map(
      instruments.map(({ checkId, instrumentId, byFault }): [string, Rows] => {
        const index = checks.findIndex((check) => check.id === checkId);
        const rows = likelihood[index]!.map((row, outcome) =>
          Float64Array.from(faults, (fault, position) => byFault.get(fault.id)?.[outcome] ?? row[position]!),
        );
        return [
          `${checkId}|${instrumentId}`,
          { likelihood: rows, logLikelihood: rows.map((row) => row.map(Math.log)) },
        ];
      }),
    ),
  };
}

/** An observation that counts, with its damping. */
export interface Weighted {
  readonly check: number;
  readonly outcome: number;
  readonly damping: number;
  /** P(outcome | fault) by fault, of this instrument where it has a record of its own. */
  readonly likelihood: Float64Array;
  readonly logLikelihood: Float64Array;
}

function strength(row: Float64Array): number {
  let low = Infinity;
  let high = -Infinity;
  for (const value of row) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return high - low;
}

/** Observations with the damping of their evidence group: the strongest counts in full, whatever the order they came in. */
export function weigh(
  model: Model,
  observations: readonly Observation[],
): { weighted: Weighted[]; notCounted: Observation[] } {
  const notCounted: Observation[] = [];
  const known: {
    check: number;
    outcome: number;
    strength: number;
    likelihood: Float64Array;
    logLikelihood: Float64Array;
  }[] = [];
  for (const observation of observations) {
    const check = model.checkIndex.get(observation.checkId);
    const outcome =
      check === undefined
        ? -1
        : model.checks[check]!.outcomes.findIndex((candidate) => candidate.id === observation.outcomeId);
    if (check === undefined || outcome < 0) {
      notCounted.push(observation);
      continue;
    }
    const own =
      observation.instrumentId == null
        ? undefined
        : model.byInstrument.get(`${observation.checkId}|${observation.instrumentId}`);
    const likelihood = (own?.likelihood ?? model.likelihood[check]!)[outcome]!;
    const logLikelihood = (own?.logLikelihood ?? model.logLikelihood[check]!)[outcome]!;
    known.push({ check, outcome, strength: strength(logLikelihood), likelihood, logLikelihood });
  }
  known.sort((a, b) => b.strength - a.strength || a.check - b.check || a.outcome - b.outcome);
  const used = new Map<string, number>();
  const weighted = known.map(({ check, outcome, likelihood, logLikelihood }) => {
    const group = model.checks[check]!.evidence;
    const before = used.get(group) ?? 0;
    used.set(group, before + 1);
    return { check, outcome, damping: groupDamping ** before, likelihood, logLikelihood };
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

/** Posterior over the faults, one fault assumed: prior times the product of damped likelihoods, in log space. */
export function posterior(model: Model, observations: readonly Observation[]): Float64Array {
  const log = Float64Array.from(model.logPrior);
  for (const { damping, logLikelihood } of weigh(model, observations).weighted) {
    for (let fault = 0; fault < log.length; fault += 1) log[fault]! += damping * logLikelihood[fault]!;
  }
  return normalise(log);
}
