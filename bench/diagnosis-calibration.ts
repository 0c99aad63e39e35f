import {
  dampingOf,
  groupDamping,
  normalise,
  posterior,
  triedCureId,
  weigh,
  type Model,
  type Observation,
} from '@fairwatt/core';
import { drawJob, ourOrder, remembering, search, seeded, type DrawnJob, type Order } from '@fairwatt/core/simulate';
import { bench, worlds } from './diagnosis-worlds.ts';

/** How far the shown chance of the first suspect may lie from how often it is the one, in points. */
const wantedPoints = [3, 8];
/** A bin with fewer states says nothing. */
const leastStates = 300;

/**
 * Every state of knowledge on the way of our order through these jobs, until something was tried as a cure: what came
 * back is known to the technician and not in the record, and in this simulation the right cure always works.
 */
function statesOf(world: Model, shipped: Model, jobs: readonly DrawnJob[]) {
  const order = remembering(ourOrder(shipped, bench, 0.9));
  const states: { readonly seen: readonly Observation[]; readonly faultId: string }[] = [];
  const noting: Order = (seen, drawn) => {
    if (seen.every(({ checkId, outcomeId }) => outcomeId !== 'unknown' && triedCureId(checkId) === null))
      states.push({ seen: [...seen], faultId: drawn.faultId });
    return order(seen, drawn);
  };
  for (const job of jobs) search(world, job, noting);
  return states;
}

/** Predicted against true, ten bins of the first suspect's chance. @returns whether every bin is near enough */
function reliability(title: string, world: Model, shipped: Model, seed: number, jobs: number, points: number): boolean {
  const random = seeded(seed);
  const bins = Array.from({ length: 10 }, () => ({ states: 0, shown: 0, right: 0 }));
  const known = new Map<string, { readonly leaderId: string; readonly chance: number }>();
  const leaderOf = (seen: readonly Observation[]) => {
    const key = seen.map(({ checkId, outcomeId }) => `${checkId}=${outcomeId}`).join();
    const found = known.get(key);
    if (found !== undefined) return found;
    const probabilities = posterior(shipped, seen);
    const chance = Math.max(...probabilities);
    const made = { leaderId: shipped.faults[probabilities.indexOf(chance)]!.id, chance };
    known.set(key, made);
    return made;
  };
  const drawn = Array.from({ length: jobs }, () => drawJob(world, random));
  for (const { seen, faultId } of statesOf(world, shipped, drawn)) {
    const { leaderId, chance } = leaderOf(seen);
    const bin = bins[Math.min(9, Math.floor(chance * 10))]!;
    bin.states += 1;
    bin.shown += chance;
    bin.right += Number(leaderId === faultId);
  }
  console.log(`\n${title}: the first suspect's chance\n\n| states | shown % | true % |\n| ---: | ---: | ---: |`);
  let most = 0;
  for (const { states, shown, right } of bins) {
    if (states < leastStates) continue;
    console.log(`| ${states} | ${((100 * shown) / states).toFixed(1)} | ${((100 * right) / states).toFixed(1)} |`);
    most = Math.max(most, Math.abs(shown - right) / states);
  }
  console.log(`\nAt most ${(100 * most).toFixed(1)} points apart (wanted: at most ${points}).`);
  return 100 * most <= points;
}

/** Ways to put the outcomes of an evidence group together. */
const ways: Record<string, (model: Model, seen: readonly Observation[]) => Float64Array> = {
  'each way apart, halved (as built)': posterior,
  'each way apart, times 0.7': (model, seen) => pooled(model, seen, (says) => dampingOf(says, 0.7)),
  undamped: (model, seen) => pooled(model, seen, (says) => says.map(() => 1)),
  'one order for all faults, halved': oneOrder,
  'joint: one group in fifty tells another story': (model, seen) => joint(model, seen, 0.02),
};

function groupsOf(model: Model, seen: readonly Observation[]) {
  const groups = new Map<string, ReturnType<typeof weigh>['weighted']>();
  for (const item of weigh(model, seen).weighted) {
    const key = model.checks[item.check]!.evidence;
    groups.set(key, [...(groups.get(key) ?? []), item]);
  }
  return [...groups.values()];
}

function pooled(model: Model, seen: readonly Observation[], weights: (says: readonly number[]) => readonly number[]) {
  const log = Float64Array.from(model.logPrior);
  for (const group of groupsOf(model, seen)) {
    for (let fault = 0; fault < log.length; fault += 1) {
      const says = group.map((item) => item.says[fault]!);
      weights(says).forEach((weight, index) => (log[fault]! += weight * says[index]!));
    }
  }
  return normalise(log);
}

/** The strongest outcome by its spread over all faults in full for every fault, the next halved. */
function oneOrder(model: Model, seen: readonly Observation[]): Float64Array {
  const log = Float64Array.from(model.logPrior);
  const spread = (row: Float64Array) => Math.max(...row) - Math.min(...row);
  for (const group of groupsOf(model, seen)) {
    group
      .sort((a, b) => spread(b.says) - spread(a.says))
      .forEach(({ says }, index) => says.forEach((value, fault) => (log[fault]! += groupDamping ** index * value)));
  }
  return normalise(log);
}

/** A mixture: the group tells the truth, or with a small share the story of any fault by its prior. */
function joint(model: Model, seen: readonly Observation[], misled: number): Float64Array {
  const prior = model.logPrior.map(Math.exp);
  const log = Float64Array.from(model.logPrior);
  for (const group of groupsOf(model, seen)) {
    const whole = prior.map((_, fault) => group.reduce((product, item) => product * item.likelihood[fault]!, 1));
    const any = whole.reduce((sum, value, fault) => sum + value * prior[fault]!, 0);
    whole.forEach((value, fault) => (log[fault]! += Math.log((1 - misled) * value + misled * any)));
  }
  return normalise(log);
}

/** Log loss of each way, half of all checks of several outcomes a group known. */
function logLoss(shipped: Model, jobs: number): void {
  const shared = new Set(
    shipped.knowledge.checks
      .map(({ evidence }) => evidence)
      .filter((group, index, all) => all.indexOf(group) !== index),
  );
  console.log(
    `\n| log loss, nats | ${Object.keys(ways).join(' | ')} |\n| --- |${' ---: |'.repeat(Object.keys(ways).length)}`,
  );
  for (const [title, world, misled] of [
    ['as the knowledge says', shipped, 0],
    ['disturbed', worlds(shipped)[1].world, 0],
    ['one group in twenty tells another story', shipped, 0.05],
    ['one group in seven', shipped, 0.15],
  ] as const) {
    const random = seeded(8123);
    const sums = new Map(Object.keys(ways).map((name) => [name, 0]));
    for (let job = 0; job < jobs; job += 1) {
      const drawn = drawJob(world, random, misled);
      const truth = shipped.faultIndex.get(drawn.faultId)!;
      const seen = shipped.knowledge.checks
        .filter((check) => check.kind === 'told' || (shared.has(check.evidence) && random() < 0.5))
        .map((check) => ({ checkId: check.id, outcomeId: drawn.outcomes.get(check.id)! }));
      for (const [name, way] of Object.entries(ways))
        sums.set(name, sums.get(name)! - Math.log(way(shipped, seen)[truth]!));
    }
    console.log(`| ${title} | ${[...sums.values()].map((sum) => (sum / jobs).toFixed(3)).join(' | ')} |`);
  }
}

/** Is what is shown as chance also how often it is so? @returns whether it is near enough in both worlds */
export function calibration(shipped: Model, jobs: number): boolean {
  const near = worlds(shipped).map(({ title, world, seed }, index) =>
    reliability(title, world, shipped, seed, jobs, wantedPoints[index]!),
  );
  logLoss(shipped, jobs);
  return near.every(Boolean);
}
