import { readFile } from 'node:fs/promises';
import { text } from 'node:stream/consumers';
import {
  boundToBe,
  checkNamed,
  ageShare,
  assessLoad,
  cableFigures,
  candidateRow,
  checkPlan,
  checkWorth,
  compileModel,
  diagnose,
  demandOf,
  drawLoads,
  explainOpen,
  fitQuestion,
  hungByInlet,
  inletsToServe,
  judgeReadings,
  safetyCheckId,
  needs,
  nothingFits,
  partsAt,
  planCables,
  plugProblems,
  rankSupplies,
  schoolRatings,
  settlingInstruments,
  steadinessOf,
  whileRunning,
  worthOf,
  type Model,
  type Observation,
} from '@fairwatt/core';
import { seeded } from '@fairwatt/core/simulate';
import { computeSchemas, computeVerbs, fieldErrors, type ComputeVerb, type Problem } from '@fairwatt/contract';

/** A failure that is told as a problem document. */
export class ComputeProblem extends Error {
  readonly problem: Problem;
  constructor(problem: Problem) {
    super(problem.title);
    this.problem = problem;
  }
}
const problem = (type: string, title: string, extra: Partial<Problem> = {}) =>
  new ComputeProblem({ type: `/problems/${type}`, title, status: 422, ...extra });

function parsed<V extends ComputeVerb>(verb: V, input: unknown): ReturnType<(typeof computeSchemas)[V]['parse']> {
  const result = computeSchemas[verb].safeParse(input);
  if (!result.success)
    throw problem('invalid', `The input of ${verb} is not valid`, { errors: fieldErrors(result.error) });
  return result.data as ReturnType<(typeof computeSchemas)[V]['parse']>;
}

/**
 * Holds answers to what the knowledge asks: each check once, except what was told, which may have been so at one time
 * and otherwise at another. @throws ComputeProblem at the first that does not fit
 */
function checkObservations(model: Model, observations: readonly Observation[]): void {
  const wrong = (index: number, field: 'check' | 'outcome', message: string) =>
    problem('invalid', 'The input of diagnose is not valid', {
      errors: [{ path: `outcomes.${index}.${field}`, message }],
    });
  observations.forEach(({ checkId, outcomeId }, index) => {
    const check = model.checks[model.checkIndex.get(checkId) ?? -1];
    if (check === undefined)
      throw wrong(index, 'check', `is not a check; known: ${model.checks.map(({ id }) => id).join(', ')}`);
    if (check.kind !== 'told' && observations.findIndex((other) => other.checkId === checkId) !== index)
      throw wrong(index, 'check', 'is answered already; only what was told may be answered for several times');
    const known = check.outcomes.map(({ id }) => id);
    if (outcomeId !== 'unknown' && !known.includes(outcomeId))
      throw wrong(index, 'outcome', `is not an outcome of ${check.id}; known: ${known.join(', ')}, unknown`);
  });
}

function verdictOf(input: unknown) {
  const { guide, instruments, readings, started } = parsed('verdict', input);
  const verdicts = judgeReadings(readings, instruments, guide, started);
  const running = whileRunning(readings, guide, started);
  return {
    verdicts: verdicts.map((verdict) => ({
      ...verdict,
      settledBy: settlingInstruments(verdict, instruments).map((instrument) => instrument.id),
    })),
    steadiness: (['+12', '+5', '+3.3'] as const).map((rail) => steadinessOf(rail, running, instruments, guide)),
  };
}

function diagnosisOf(input: unknown, model: () => Model) {
  const { outcomes, bench, stopProbability, record } = parsed('diagnose', input);
  const compiled = record === undefined ? model() : compileModel(model().shipped, record);
  const observations = outcomes.map((item) => ({
    checkId: item.check,
    outcomeId: item.outcome,
    instrumentId: item.instrument ?? null,
  }));
  checkObservations(compiled, observations);
  const available = bench ?? { has: [...needs].filter((need) => need !== 'running'), mayMeterMains: false };
  const found = diagnose(compiled, observations, { bench: available, stopProbability: stopProbability ?? 0.9 });
  const named = (faultId: string) => compiled.faults.find((fault) => fault.id === faultId)?.name;
  const titled = (checkId: string) => checkNamed(compiled, checkId).title;
  return {
    conclusion: found.conclusion,
    interlocks: found.interlocks.map(({ danger, causes, madeSafe, bars }) => ({
      dangerId: danger.id,
      title: danger.title,
      causes,
      madeSafe: madeSafe?.id ?? null,
      bars,
      first: madeSafe === null ? danger.first : [],
      ways:
        madeSafe === null
          ? danger.ways.map((way) => ({ check: safetyCheckId(danger.id), outcome: way.id, label: way.label }))
          : [],
    })),
    nextStep: found.step,
    contradiction: found.contradiction,
    twoFaults:
      found.twoFaults === null
        ? null
        : {
            ...found.twoFaults,
            pairs: found.twoFaults.pairs.map((pair) => ({ ...pair, names: pair.faultIds.map(named) })),
          },
    wouldChangeMyMind: found.mindChangers,
    suspects: found.suspects.map((suspect) => ({ ...suspect, name: named(suspect.faultId) })),
    nextChecks: found.nextChecks.slice(0, 5).map((check) => ({
      title: titled(check.checkId),
      worthMinutes: worthOf(check),
      why: checkWorth(compiled.knowledge, check),
      ...check,
    })),
  };
}

function loadOf(input: unknown) {
  const {
    parts,
    supply,
    supplyYears,
    agePercentAYear,
    staggeredStart: staggered,
    cardAdviceWatts,
    draws,
    seed,
  } = parsed('load', input);
  const share = ageShare(supplyYears, agePercentAYear);
  const moment = (name: 'present' | 'planned') => {
    const then = partsAt(parts, name);
    const demand = demandOf(then, { staggered });
    return {
      demand,
      assessment:
        supply === null
          ? null
          : assessLoad(demand, supply, { ageShare: share, hung: hungByInlet(then, { staggered }) }),
      plugProblems: plugProblems(then, { staggered }),
    };
  };
  const planned = moment('planned');
  return {
    present: moment('present'),
    planned,
    schools: schoolRatings(planned.demand, supply?.ratingWatts ?? null, supply?.guide ?? '3.x', cardAdviceWatts),
    draws: draws === 0 ? null : drawLoads(partsAt(parts, 'planned'), supply, seeded(seed), draws, share),
  };
}

function rankingOf(input: unknown) {
  const {
    parts,
    casing,
    mainsVolts,
    school,
    presentRatingWatts,
    cardAdviceWatts,
    staggeredStart: staggered,
    wants,
    currency,
    choosing,
    adapters,
    supplies,
  } = parsed('rank', input);
  const question = fitQuestion(parts, casing, {
    school,
    presentRatingWatts,
    cardAdviceWatts,
    staggered,
    wants,
    sharedCardCable: choosing.sharedCardCable,
    dropTooLarge: choosing.dropTooLarge,
    spares: new Map(),
    adapters: choosing.adapters ? adapters : [],
    day: choosing.day,
    tariff: { mainsVolts, minorPerKilowattHour: choosing.minorPerKilowattHour, breakerAmps: choosing.breakerAmps },
  });
  const ranked = rankSupplies(supplies, question, choosing.weights, currency);
  const nothing = nothingFits(ranked.map(candidateRow));
  return {
    candidates: ranked.map(({ model: supply, ...rest }) => ({ supplyId: supply.id, name: supply.name, ...rest })),
    nothingFits:
      nothing === null
        ? null
        : { nearest: nothing.nearest.map((candidate) => candidate.model.id), smallerCard: nothing.smallerCard },
  };
}

function planOf(input: unknown) {
  const {
    parts,
    layout,
    kit,
    sharedCardCable: allowShared,
    staggeredStart: staggered,
    adapters,
    pins,
  } = parsed('plan', input);
  const inlets = inletsToServe(partsAt(parts, 'planned'), layout, { staggered });
  const rules = { allowShared, adapters, pins };
  const plan = planCables(kit, inlets, rules);
  return {
    ...plan,
    figures: cableFigures(kit, inlets, plan, adapters),
    breaches: checkPlan(kit, inlets, plan.assignments, rules),
    because: explainOpen(kit, inlets, rules, plan),
  };
}

const verbs: { readonly [V in ComputeVerb]: (input: unknown, model: () => Model) => unknown } = {
  verdict: verdictOf,
  diagnose: diagnosisOf,
  load: loadOf,
  rank: rankingOf,
  plan: planOf,
};

/** Runs one verb of the core on parsed JSON. @throws ComputeProblem when the input does not fit */
export const compute = (verb: ComputeVerb, input: unknown, model: () => Model): unknown => verbs[verb](input, model);

/** `fairwatt compute VERB [FILE]`: JSON in, JSON out; a problem document on standard error and 2 when it cannot. */
export async function computeCommand(args: readonly string[], loadModel: () => Promise<Model>): Promise<number> {
  try {
    const [verb, file] = args;
    if (verb === undefined || !(computeVerbs as string[]).includes(verb))
      throw problem('unknown-verb', `Say which: ${computeVerbs.join(', ')}`, { status: 400 });
    const known = verb as ComputeVerb;
    let raw: string;
    try {
      raw = file === undefined || file === '-' ? await text(process.stdin) : await readFile(file, 'utf8');
    } catch {
      throw problem('no-file', `${file ?? 'standard input'} cannot be read`, { status: 400 });
    }
    let input: unknown;
    try {
      input = JSON.parse(raw);
    } catch {
      throw problem('not-json', `${file ?? 'standard input'} is not JSON, or it is cut off`, { status: 400 });
    }
    const model = known === 'diagnose' ? await loadModel() : null;
    process.stdout.write(
      `${JSON.stringify(
        compute(known, input, () => boundToBe(model, 'compiled model')),
        null,
        2,
      )}\n`,
    );
    return 0;
  } catch (error) {
    if (!(error instanceof ComputeProblem)) throw error;
    process.stderr.write(`${JSON.stringify(error.problem, null, 2)}\n`);
    return 2;
  }
}
