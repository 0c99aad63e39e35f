import { performance } from 'node:perf_hooks';
import {
  checkPlan,
  demandOf,
  explainOpen,
  moments,
  planCables,
  spreadOverOutputs,
  usualRules,
  type CableKit,
  type HungLoad,
  type InletToServe,
  type KitCable,
  type SupplyLabel,
} from '@fairwatt/core';
import { seeded, type Random } from '@fairwatt/core/simulate';
import { randomProblem } from '../core/src/cable/plan-problem.test-help.ts';

const whole = (random: Random, from: number, to: number) => from + Math.floor(random() * (to - from + 1));
const pickOf = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/** 16-pin inlets that differ, and cables for them that take two of the sockets which the others want. */
function addTwoEnded(random: Random, inlets: InletToServe[], cables: KitCable[]): void {
  for (let count = whole(random, 1, 4); count > 0; count -= 1)
    inlets.push({
      ...inlets[0]!,
      id: `big${count}`,
      kind: 'card-16',
      optional: random() < 0.3,
      reachMillimetres: 250 + whole(random, 0, 300),
      amps12: 10 + random() * 40,
    });
  for (let kind = whole(random, 1, 3); kind > 0; kind -= 1)
    cables.push({
      id: `two${kind}`,
      family: 'card-16',
      fixed: false,
      twoEnded: random() < 0.8,
      count: whole(random, 1, 3),
      gauge: pickOf(random, [16, 18]),
      plugs: [{ kind: 'card-16', millimetres: whole(random, 300, 700) }],
    });
}

/** Inlets of one family that all differ, and more cables than they need: what no symmetry shortens. */
function differing(random: Random): { readonly kit: CableKit; readonly inlets: readonly InletToServe[] } {
  const card = random() < 0.5;
  const kinds = card ? (['card-8', 'card-6'] as const) : (['sata', 'sata', 'peripheral-4'] as const);
  const inlets = Array.from(
    { length: card ? whole(random, 4, 12) : whole(random, 8, 24) },
    (_, index): InletToServe => ({
      id: `i${index}`,
      kind: pickOf(random, kinds),
      optional: random() < 0.2,
      place: card ? 'slots' : pickOf(random, ['drive-cage', 'top', 'floor']),
      reachMillimetres: 250 + whole(random, 0, 300),
      amps12: random() * (card ? 12 : 2.5),
      amps5: card ? 0 : random(),
      amps33: 0,
    }),
  );
  const plugs = card ? (['card-6+2', 'card-6'] as const) : (['sata', 'peripheral-4'] as const);
  const cables = Array.from({ length: whole(random, 2, 4) }, (_, index): KitCable => {
    const from = whole(random, 300, 600);
    return {
      id: `c${index}`,
      family: card ? 'card' : 'drive',
      fixed: random() < 0.2,
      count: whole(random, 1, 4),
      gauge: pickOf(random, [16, 18, 18, 20]),
      plugs: Array.from({ length: whole(random, 1, card ? 3 : 5) }, (__, at) => ({
        kind: pickOf(random, plugs),
        millimetres: from + at * whole(random, 100, 160),
      })),
    };
  });
  const sockets = Array.from({ length: whole(random, 2, 8) }, (_, index) => ({
    label: `S${index}`,
    kind: card ? pickOf(random, ['card', 'cpu-card'] as const) : ('drive' as const),
  }));
  if (card && random() < 0.5) addTwoEnded(random, inlets, cables);
  return { kit: { cables, sockets }, inlets };
}

/** Many different loads on several outputs, some of which only feed some of them. */
function manyLoads(random: Random): readonly [SupplyLabel, readonly HungLoad[]] {
  const outputs = whole(random, 2, 6);
  const label: SupplyLabel = {
    ratingWatts: 1000,
    shape: 'ATX',
    guide: '3.x',
    grade: 'gold',
    modular: 'full',
    has16Pin: true,
    rails: Array.from({ length: outputs }, (_, index) => ({
      label: `12V${index + 1}`,
      rail: '+12',
      amps: 10 + random() * 20,
    })),
    combined: outputs > 2 ? [{ labels: ['12V1', '12V2'], watts: 200 + random() * 200 }] : [],
  };
  const hung = Array.from({ length: whole(random, 10, 24) }, (_, index): HungLoad => {
    const lasting = random() * 6;
    return {
      name: `c${index}`,
      family: 'card',
      output: null,
      startAmps: random() < 0.3 ? random() * 2 : 0,
      amps: Object.fromEntries(
        moments.map((moment) => [moment, lasting * (moment === 'lasting' ? 1 : 1 + random())]),
      ) as HungLoad['amps'],
    };
  });
  return [label, hung];
}

interface Worst {
  readonly count: number;
  readonly plan: number;
  readonly explain: number;
  readonly spread: number;
  readonly proved: number;
}

/** The longest that a plan, an explanation and a spread take on inputs made to be hard, in milliseconds. */
export function timeAdversary(count = 1000): Worst {
  const random = seeded(140_250);
  let [plan, explain, spread, proved] = [0, 0, 0, 0];
  const once = <T>(work: () => T): readonly [number, T] => {
    const begun = performance.now();
    const made = work();
    return [performance.now() - begun, made];
  };
  for (let run = 0; run < count; run += 1) {
    const { kit, inlets } = differing(random);
    const [took, made] = once(() => planCables(kit, inlets));
    plan = Math.max(plan, took);
    if (made.proved) proved += 1;
    // Every fifth is explained as well: each of its open inlets.
    if (run % 5 === 0) explain = Math.max(explain, once(() => explainOpen(kit, inlets, usualRules, made))[0]);
    const [label, hung] = manyLoads(random);
    spread = Math.max(spread, once(() => spreadOverOutputs(label, demandOf([]), hung))[0]);
  }
  return { count, plan, explain, spread, proved };
}

/** Plans of random kits against the checker that knows nothing of planning: how many break a rule. */
export function countIllegal(count = 50_000): number {
  const random = seeded(50_000);
  let illegal = 0;
  for (let run = 0; run < count; run += 1) {
    const { kit, inlets, rules } = randomProblem(random);
    const plan = planCables(kit, inlets, rules);
    const breaches = checkPlan(kit, inlets, plan.assignments, rules);
    // An overloaded cable is the last way to serve a needed inlet; the plan counts it and every verdict says so.
    const overloaded = new Set(breaches.flatMap((breach) => (breach.code === 'cable-overload' ? breach.cableCode : [])))
      .size;
    const others = breaches.filter((breach) => breach.code !== 'cable-overload');
    if (others.length > 0 || overloaded !== plan.score.overloaded) illegal += 1;
  }
  return illegal;
}
