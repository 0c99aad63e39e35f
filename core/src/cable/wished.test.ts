import { describe, expect, it } from 'vitest';
import { seeded } from '../simulate/index.ts';
import {
  checkPlan,
  planCables,
  usualRules,
  type Adapter,
  type CableKit,
  type InletToServe,
  type Pin,
  type PlanRules,
} from './index.ts';
import { randomProblem } from './plan-problem.test-help.ts';

const longer: Adapter = {
  id: 'longer',
  takes: 'cpu-8',
  gives: 'cpu-8',
  legs: 1,
  moulded: false,
  addsMillimetres: 300,
  watts: null,
  count: 1,
};
const kit: CableKit = {
  sockets: ['C1', 'C2', 'C3'].map((label) => ({ label, kind: 'cpu' })),
  cables: [
    { id: 'cpu', family: 'cpu', fixed: false, count: 2, gauge: 18, plugs: [{ kind: 'cpu-4+4', millimetres: 500 }] },
  ],
};
const inlet = (id: string, reachMillimetres: number, amps12 = 12): InletToServe => ({
  ...{ id, kind: 'cpu-8', optional: false, place: 'board-top', reachMillimetres, amps12, amps5: 0, amps33: 0 },
});
const wish = (inletId: string, copy = 0, adapterId = 'longer'): Pin => ({
  ...{ inletId, kitCableId: 'cpu', copy, plugIndex: 0, socketLabel: null, adapterId },
});
const plan = (inlets: readonly InletToServe[], pins: readonly Pin[], adapters: readonly Adapter[] = [longer]) => {
  const rules: PlanRules = { ...usualRules, adapters, pins };
  const made = planCables(kit, inlets, rules);
  return { ...made, breaches: checkPlan(kit, inlets, made.assignments, rules).map(({ code }) => code) };
};

describe('an extension that somebody wishes', () => {
  it('goes where it was put although nothing asks for it, adds its length, and counts as a piece of no kit', () => {
    const made = plan([inlet('near', 400)], [wish('near')]);
    expect(made.assignments).toMatchObject([
      { inletId: 'near', adapterId: 'longer', slackMillimetres: 400, pinned: true },
    ]);
    expect(made).toMatchObject({ refused: [], breaches: [], score: { foreign: 1, slackMillimetres: 400 } });
    expect(plan([inlet('near', 400)], []).assignments[0]!.adapterId).toBeNull();
  });
  it('is not used again by the plan, nor by a second wish', () => {
    const [near, far] = [inlet('near', 400), inlet('far', 700)];
    expect(plan([near, far], []).open).toEqual([]);
    const wished = plan([near, far], [wish('near')]);
    expect(wished.open.map(({ inletId, reason }) => [inletId, reason])).toEqual([['far', 'too-short']]);
    const twice = plan([near, far], [wish('near'), wish('far', 1)]);
    expect(twice.refused).toMatchObject([{ inletId: 'far', code: 'no-adapter' }]);
    const enough = plan([near, far], [wish('near'), wish('far', 1)], [{ ...longer, count: 2 }]);
    expect(enough).toMatchObject({ refused: [], open: [], breaches: [], score: { foreign: 2 } });
  });
  it('is refused where it is not at hand, does not fit, carries too little, or is allowed to nobody', () => {
    const refused = (adapter: Partial<Adapter> | null, amps12 = 12) =>
      plan(
        [inlet('near', 400, amps12)],
        [wish('near')],
        adapter === null ? [] : [{ ...longer, ...adapter }],
      ).refused.map(({ code }) => code);
    expect(refused({})).toEqual([]);
    expect(refused(null)).toEqual(['no-adapter']);
    expect(refused({ takes: 'card-8', gives: 'card-8' })).toEqual(['no-adapter']);
    expect(refused({ takes: 'cpu-4' })).toEqual(['no-adapter']);
    expect(refused({ watts: 100 })).toEqual(['no-adapter']);
    expect(refused({ count: 0 })).toEqual(['no-adapter']);
    // What was refused leaves its inlet to the plan.
    expect(plan([inlet('near', 400)], [wish('near')], []).open).toEqual([]);
  });
  it('is told where even with it the cable is too short', () => {
    expect(plan([inlet('away', 900)], [wish('away')]).breaches).toEqual(['too-short']);
  });
  it('makes the plan that a longer cable in its place makes, on 400 random machines', () => {
    const random = seeded(20_261_128);
    let compared = 0;
    for (let run = 0; run < 400; run += 1) {
      const { kit: given, inlets, rules } = randomProblem(random);
      const first = planCables(given, inlets, rules);
      const item = first.assignments.find(({ kitCableId, inletId, adapterId }) => {
        const cable = given.cables.find(({ id }) => id === kitCableId)!;
        const { kind, amps12 } = inlets.find(({ id }) => id === inletId)!;
        // More than one such plug may carry no extension does.
        if (kind === 'cpu-8' && amps12 > 28) return false;
        return (
          adapterId === null &&
          cable.plugs.length === 1 &&
          cable.count === 1 &&
          ['main-24', 'cpu-8', 'card-8'].includes(kind)
        );
      });
      if (item === undefined) continue;
      compared += 1;
      const { kind } = inlets.find(({ id }) => id === item.inletId)!;
      const extension: Adapter = {
        ...longer,
        id: 'wished',
        takes: kind,
        gives: kind,
      };
      const pin: Pin = { inletId: item.inletId, kitCableId: item.kitCableId, copy: 0, plugIndex: 0, socketLabel: null };
      const through = planCables(given, inlets, {
        ...rules,
        adapters: [...rules.adapters, extension],
        pins: [{ ...pin, adapterId: 'wished' }],
      });
      const cables = given.cables.map((cable) =>
        cable.id === item.kitCableId
          ? { ...cable, plugs: cable.plugs.map((plug) => ({ ...plug, millimetres: plug.millimetres + 300 })) }
          : cable,
      );
      const stretched = planCables({ ...given, cables }, inlets, { ...rules, pins: [pin] });
      expect(through.refused, `machine ${run}`).toEqual([]);
      expect(through.score, `machine ${run}`).toEqual({ ...stretched.score, foreign: stretched.score.foreign + 1 });
      expect(through.assignments.find(({ inletId }) => inletId === item.inletId)?.slackMillimetres).toBe(
        item.slackMillimetres + 300,
      );
    }
    expect(compared).toBeGreaterThan(100);
  });
});
