import highsLoader, { type Highs } from 'highs';
import { describe, expect, it } from 'vitest';
import { inletFamily, type CableFamily } from '../standards/index.ts';
import { seeded, type Random } from '../simulate/index.ts';
import {
  betweenMillimetres,
  checkPlan,
  compareScores,
  planCables,
  searchFamily,
  tabulateFamily,
  usualRules,
  type InletToServe,
  type KitCable,
} from './index.ts';
import { planProgramme, planWeights, randomProblem, type PlanProblem } from './plan-problem.test-help.ts';
import { casesOf } from '../size.test-help.ts';

const load = highsLoader as unknown as () => Promise<Highs>;
const families: readonly CableFamily[] = ['main', 'cpu', 'card', 'card-16', 'drive'];

/** Many drives in a few bays and places, on chains of a few kinds: what a search alone would not end on. */
function manyDrives(random: Random): PlanProblem {
  const inlets: InletToServe[] = [];
  const add = (
    count: number,
    kind: InletToServe['kind'],
    place: InletToServe['place'],
    reachMillimetres: number,
    amps12: number,
    optional = false,
  ) => {
    for (let index = 0; index < count; index += 1)
      inlets.push({ id: `i${inlets.length}`, kind, optional, place, reachMillimetres, amps12, amps5: 0.6, amps33: 0 });
  };
  add(6 + Math.floor(random() * 12), 'sata', 'drive-cage', 350, 2.2);
  add(Math.floor(random() * 4), 'sata', 'top', 600, 0.7);
  add(Math.floor(random() * 3), 'sata', 'front', 450, 0.1, true);
  add(Math.floor(random() * 3), 'peripheral-4', 'floor', 250, 1.6);
  const chain = (kind: 'sata' | 'peripheral-4', from: number, count: number) =>
    Array.from({ length: count }, (_, index) => ({ kind, millimetres: from + index * 150 }));
  const cables: KitCable[] = [
    {
      id: 'four',
      family: 'drive',
      fixed: false,
      count: 1 + Math.floor(random() * 3),
      gauge: 18,
      plugs: chain('sata', 400, 4),
    },
    {
      id: 'three',
      family: 'drive',
      fixed: random() < 0.3,
      count: 1 + Math.floor(random() * 2),
      gauge: 18,
      plugs: chain('sata', 350, 3),
    },
    { id: 'old', family: 'drive', fixed: false, count: 1, gauge: 18, plugs: chain('peripheral-4', 400, 3) },
  ];
  return {
    inlets,
    rules: {
      ...usualRules,
      adapters:
        random() < 0.5
          ? [
              {
                id: 'flat',
                takes: 'peripheral-4',
                gives: 'sata',
                legs: 1,
                moulded: false,
                addsMillimetres: 150,
                watts: null,
                count: 2,
              },
            ]
          : [],
    },
    kit: {
      cables,
      sockets: Array.from({ length: 2 + Math.floor(random() * 4) }, (_, index) => ({
        kind: 'drive' as const,
        label: `DRIVE ${index + 1}`,
      })),
    },
  };
}

describe('the table', () => {
  it('reaches the score of the search on every family of 300 machines, with adapters, legs and put plugs', () => {
    const random = seeded(77);
    let compared = 0;
    let placedOnes = 0;
    let twoEnded = 0;
    let numbered = 0;
    for (let run = 0; run < 300; run += 1) {
      const { kit, inlets, rules } = randomProblem(random);
      for (const family of families) {
        const cables = kit.cables.filter((cable) => cable.family === family);
        const own = inlets.filter((inlet) => inletFamily(inlet.kind) === family);
        const room = { own: Math.floor(random() * 4), pairs: Math.floor(random() * 3) };
        const pick = own[Math.floor(random() * own.length)];
        const cable = cables[Math.floor(random() * cables.length)];
        const placed =
          random() < 0.4 && pick !== undefined && cable !== undefined
            ? [
                {
                  cable,
                  copy: 0,
                  plugIndex: Math.floor(random() * cable.plugs.length),
                  inlet: pick,
                  adapter: random() < 0.3 ? (rules.adapters.find(({ legs }) => legs === 1) ?? null) : null,
                  holdsSocket: random() < 0.5,
                },
              ]
            : [];
        const leg =
          family === 'card' && random() < 0.3
            ? Array.from({ length: 2 }, () => ({
                id: 'legged',
                kind: 'card-8' as const,
                optional: false,
                place: 'slots' as const,
                reachMillimetres: 300,
                amps12: 12,
                amps5: 0,
                amps33: 0,
                leg: { ofInletId: 'legged', adapterId: 'x' },
              }))
            : [];
        const extras = {
          placed,
          adapters: rules.adapters.filter((adapter) => adapter.legs === 1 && inletFamily(adapter.takes) === family),
        };
        const wanted = [...own.filter((inlet) => placed.length === 0 || inlet !== pick), ...leg];
        const searched = searchFamily(family, cables, wanted, room, random() < 0.8 || family === 'main', extras);
        const again = searchFamily(family, cables, wanted, room, true, extras);
        const table = tabulateFamily(family, cables, wanted, room, true, extras);
        expect(table).not.toBe('too-large');
        expect(table === null, `machine ${run} ${family}`).toBe(again === null);
        if (table === null || table === 'too-large' || again === null) continue;
        compared += 1;
        placedOnes += placed.length;
        expect(
          compareScores(table.score, again.score),
          `machine ${run} ${family} ${JSON.stringify([table.score, again.score])}`,
        ).toBe(0);
        // Of plans that are equally good one may use a fixed cable where the other uses a modular one.
        const holds = placed.some((item) => item.holdsSocket) ? 1 : 0;
        for (const plan of [table, again]) {
          const pulled = plan.cables.filter(({ cable: used, copy }) => !(holds > 0 && used === cable && copy === 0));
          const ends = { own: 0, pairs: 0 };
          for (const { cable: used } of pulled)
            if (used.onlySocket !== undefined) numbered += 1;
            else if (used.twoEnded === true && used.family === 'card-16') ends.pairs += 1;
            else ends.own += used.fixed ? 0 : used.twoEnded === true ? 2 : 1;
          expect(plan.taken).toEqual(ends);
          expect(ends.own).toBeLessThanOrEqual(room.own);
          expect(ends.pairs).toBeLessThanOrEqual(room.pairs);
          if (ends.pairs > 0) twoEnded += 1;
        }
        expect(table.open).toHaveLength(again.open.length);
        for (const used of table.cables)
          used.plugs.forEach((one, index) =>
            used.plugs.slice(0, index).forEach((other) => {
              if (
                one.adapter === null &&
                other.adapter === null &&
                !placed.some((item) => item.inlet === one.inlet || item.inlet === other.inlet)
              )
                expect(
                  Math.abs(
                    used.cable.plugs[one.plugIndex]!.millimetres - used.cable.plugs[other.plugIndex]!.millimetres,
                  ),
                ).toBeGreaterThanOrEqual(betweenMillimetres(one.inlet, other.inlet));
            }),
          );
        if (searched !== null) expect(searched.proved).toBe(true);
      }
    }
    expect(twoEnded).toBeGreaterThan(5);
    expect(numbered).toBeGreaterThan(50);
    expect(compared).toBeGreaterThan(1000);
    expect(placedOnes).toBeGreaterThan(100);
  });
  it("has the solver's objective with many drives", async () => {
    const highs = await load();
    const random = seeded(5);
    let open = 0;
    const machines = casesOf(8, 25);
    for (let run = 0; run < machines; run += 1) {
      const problem = manyDrives(random);
      const { lp, constant } = planProgramme(problem);
      const solved = highs.solve(lp, { mip_rel_gap: 0, mip_abs_gap: 0.5 });
      const plan = planCables(problem.kit, problem.inlets, problem.rules);
      expect(plan.proved).toBe(true);
      expect(checkPlan(problem.kit, problem.inlets, plan.assignments, problem.rules)).toEqual([]);
      const { score } = plan;
      expect(
        planWeights.openRequired * score.openRequired +
          planWeights.openLarger * score.openLarger +
          planWeights.overloaded * score.overloaded +
          planWeights.openOptional * score.openOptional +
          planWeights.sharing * score.sharing +
          planWeights.foreign * score.foreign +
          planWeights.cables * score.cables,
        `machine ${run}`,
      ).toBe(Math.round(solved.ObjectiveValue + constant));
      if (score.openRequired > 0) open += 1;
    }
    expect(open).toBeGreaterThan(machines / 8);
  });
  it('gives way where too many inlets differ; the search then says that it proved nothing', () => {
    const inlets = Array.from({ length: 22 }, (_, index): InletToServe => ({
      id: `i${index}`,
      kind: 'sata',
      optional: false,
      place: 'drive-cage',
      reachMillimetres: 300 + index,
      amps12: 0.1 + index / 100,
      amps5: 0,
      amps33: 0,
    }));
    const cables: KitCable[] = [
      {
        id: 's',
        family: 'drive',
        fixed: false,
        count: 4,
        gauge: 18,
        plugs: [400, 500, 600, 700].map((millimetres) => ({ kind: 'sata', millimetres })),
      },
    ];
    expect(tabulateFamily('drive', cables, inlets, { own: 4, pairs: 0 }, true, { adapters: [], placed: [] })).toBe(
      'too-large',
    );
    const plan = planCables(
      { cables, sockets: Array.from({ length: 4 }, (_, index) => ({ kind: 'drive', label: `D${index}` })) },
      inlets,
    );
    expect(plan.proved).toBe(false);
    expect(plan.assignments).toHaveLength(16);
    expect(
      checkPlan(
        { cables, sockets: Array.from({ length: 4 }, (_, index) => ({ kind: 'drive', label: `D${index}` })) },
        inlets,
        plan.assignments,
        usualRules,
      ),
    ).toEqual([]);
  });
});
