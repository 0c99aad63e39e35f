import highsLoader, { type Highs } from 'highs';
import { describe, expect, it } from 'vitest';
import { seeded } from '../simulate/index.ts';
import { checkPlan, planCables } from './index.ts';
import { planProgramme, planWeights, randomProblem } from './plan-problem.test-help.ts';
import { casesOf } from '../size.test-help.ts';

// The package's types speak of its CommonJS face; what is imported is the loader itself.
const load = highsLoader as unknown as () => Promise<Highs>;

const machines = casesOf(150, 500);

describe('against an exact solver', () => {
  it(`the plan of ${machines} random machines and kits has the solver's objective, to the cable`, async () => {
    const highs = await load();
    const random = seeded(20_261_125);
    let unserved = 0;
    let shared = 0;
    let legged = 0;
    let foreign = 0;
    let overloaded = 0;
    let twoEnded = 0;
    let numbered = 0;
    for (let run = 0; run < machines; run += 1) {
      const problem = randomProblem(random);
      const { kit, inlets, rules } = problem;
      const { lp, constant } = planProgramme(problem);
      const solved = highs.solve(lp, { mip_rel_gap: 0, mip_abs_gap: 0.5 });
      expect(solved.Status, `machine ${run}`).toBe('Optimal');
      const plan = planCables(kit, inlets, rules);
      const { score } = plan;
      const breaches = checkPlan(kit, inlets, plan.assignments, rules);
      const overloads = new Set(breaches.map((breach) => (breach.code === 'cable-overload' ? breach.cableCode : '')));
      expect(overloads.has(''), `machine ${run}`).toBe(false);
      expect(overloads.size, `machine ${run}`).toBe(score.overloaded);
      const ours =
        planWeights.openRequired * score.openRequired +
        planWeights.openLarger * score.openLarger +
        planWeights.overloaded * score.overloaded +
        planWeights.openOptional * score.openOptional +
        planWeights.sharing * score.sharing +
        planWeights.foreign * score.foreign +
        planWeights.cables * score.cables;
      expect(ours, `machine ${run}: ${JSON.stringify(problem)}`).toBe(Math.round(solved.ObjectiveValue + constant));
      if (score.openRequired > 0) unserved += 1;
      if (score.sharing > 0) shared += 1;
      if (plan.assignments.some((item) => item.adapterId?.startsWith('sixteen') === true)) legged += 1;
      if (score.foreign > 0) foreign += 1;
      if (score.overloaded > 0) overloaded += 1;
      if (plan.cables.some(({ socketLabel }) => socketLabel?.includes(' + ') === true)) twoEnded += 1;
      const numberOf = (id: string) => kit.cables.find((cable) => cable.id === id)?.onlySocket;
      if (plan.cables.some(({ kitCableId }) => numberOf(kitCableId) !== undefined)) numbered += 1;
      const sockets = breaches.filter(({ code }) => code === 'socket-kind' || code === 'socket-twice');
      expect(sockets, `machine ${run}`).toEqual([]);
    }
    // The set holds what cannot be served and what must share as well, else it would prove little.
    expect(unserved).toBeGreaterThan(machines / 10);
    expect(shared).toBeGreaterThan(machines / 50);
    expect(foreign).toBeGreaterThan(machines / 17);
    expect(legged).toBeGreaterThan(machines / 150);
    expect(overloaded).toBeGreaterThan(machines / 50);
    expect(twoEnded).toBeGreaterThan(machines / 10);
    expect(numbered).toBeGreaterThan(machines / 10);
  });
});
