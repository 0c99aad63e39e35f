import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../simulate/index.ts';
import {
  adapterRefusal,
  checkPlan,
  compareScores,
  planCables,
  usualRules,
  type Adapter,
  type CableKit,
  type InletToServe,
  type KitCable,
  type Pin,
  type PlanRules,
} from './index.ts';
import { randomProblem } from './plan-problem.test-help.ts';

const inlet = (id: string, kind: InletToServe['kind'], extra: Partial<InletToServe> = {}): InletToServe => ({
  id,
  kind,
  optional: false,
  place: 'drive-cage',
  reachMillimetres: 300,
  amps12: 1,
  amps5: 0,
  amps33: 0,
  ...extra,
});
const cable = (
  id: string,
  family: KitCable['family'],
  plugs: KitCable['plugs'],
  extra: Partial<KitCable> = {},
): KitCable => ({ id, family, fixed: false, count: 1, gauge: 18, plugs, ...extra });
const plug = (kind: KitCable['plugs'][number]['kind'], millimetres = 500) => ({ kind, millimetres });
const sockets = (...kinds: CableKit['sockets'][number]['kind'][]) =>
  kinds.map((kind, index) => ({ kind, label: `${kind} ${index + 1}` }));
const adapter = (
  id: string,
  takes: Adapter['takes'],
  gives: Adapter['gives'],
  extra: Partial<Adapter> = {},
): Adapter => ({ id, takes, gives, legs: 1, moulded: false, addsMillimetres: 0, watts: null, count: 1, ...extra });
const pin = (
  inletId: string,
  kitCableId: string,
  plugIndex: number,
  copy = 0,
  socketLabel: string | null = null,
): Pin => ({ inletId, kitCableId, copy, plugIndex, socketLabel });
const by = (changes: Partial<PlanRules>): PlanRules => ({ ...usualRules, ...changes });

describe('adapters', () => {
  const kit: CableKit = {
    sockets: sockets('card', 'card', 'card', 'cpu', 'drive'),
    cables: [
      cable('card', 'card', [plug('card-6+2'), plug('card-6+2', 600)], { count: 3 }),
      cable('cpu', 'cpu', [plug('cpu-4+4', 500)]),
      cable('old', 'drive', [plug('peripheral-4'), plug('peripheral-4', 650)]),
    ],
  };
  const sixteen = adapter('three', 'card-8', 'card-16', { legs: 3, watts: 450, addsMillimetres: 100 });
  it('make a 16-pin plug of separate cables, each leg alone on its own', () => {
    const plan = planCables(kit, [inlet('g', 'card-16', { amps12: 24 })], by({ adapters: [sixteen] }));
    expect(plan.assignments.map((item) => [item.inletId, item.adapterId])).toEqual([
      ['g', 'three'],
      ['g', 'three'],
      ['g', 'three'],
    ]);
    expect(new Set(plan.assignments.map((item) => item.socketLabel)).size).toBe(3);
    expect(plan.assignments[0]?.slackMillimetres).toBe(300);
    expect(plan.cables.map((item) => item.amps12)).toEqual([8, 8, 8]);
    expect(plan.score).toMatchObject({ foreign: 1, openRequired: 0, sharing: 0 });
  });
  it('are not used by halves: two cables are no three, and what they would take goes to others', () => {
    const plan = planCables(
      { ...kit, sockets: sockets('card', 'card') },
      [inlet('g', 'card-16', { amps12: 24 }), inlet('c', 'card-8', { amps12: 8 })],
      by({ adapters: [sixteen] }),
    );
    expect(plan.open).toEqual([{ inletId: 'g', optional: false, reason: 'no-such-plug' }]);
    expect(plan.assignments.map((item) => item.inletId)).toEqual(['c']);
  });
  it('carry no more than their maker and their legs say', () => {
    expect(planCables(kit, [inlet('g', 'card-16', { amps12: 38 })], by({ adapters: [sixteen] })).open).toHaveLength(1);
    expect(planCables(kit, [inlet('g', 'card-16', { amps12: 37.5 })], by({ adapters: [sixteen] })).open).toHaveLength(
      0,
    );
  });
  it('lengthen a cable once, and only one that is too short', () => {
    const longer = adapter('longer', 'cpu-8', 'cpu-4+4', { addsMillimetres: 200, count: 2 });
    expect(
      planCables(kit, [inlet('p', 'cpu-8', { reachMillimetres: 650 })], by({ adapters: [longer] })).assignments[0],
    ).toMatchObject({ adapterId: 'longer', slackMillimetres: 50 });
    expect(
      planCables(kit, [inlet('p', 'cpu-8', { reachMillimetres: 750 })], by({ adapters: [longer] })).open,
    ).toHaveLength(1);
    expect(planCables(kit, [inlet('p', 'cpu-8')], by({ adapters: [longer] })).assignments[0]?.adapterId).toBeNull();
  });
  it('change a drive plug as often as there are any', () => {
    const flat = adapter('flat', 'peripheral-4', 'sata', { addsMillimetres: 100 });
    const two = [inlet('a', 'sata'), inlet('b', 'sata')];
    expect(planCables(kit, two, by({ adapters: [flat] })).open).toHaveLength(1);
    expect(planCables(kit, two, by({ adapters: [{ ...flat, count: 2 }] })).open).toHaveLength(0);
  });
  it('that cross purposes, are moulded or have too few legs are left alone', () => {
    expect(adapterRefusal(adapter('x', 'sata', 'card-6'))).toBe('crosses-purposes');
    expect(adapterRefusal(adapter('x', 'peripheral-4', 'card-8', { legs: 2 }))).toBe('crosses-purposes');
    expect(adapterRefusal(adapter('x', 'cpu-8', 'card-8'))).toBe('crosses-purposes');
    expect(adapterRefusal(adapter('x', 'peripheral-4', 'sata', { moulded: true }))).toBe('moulded');
    expect(adapterRefusal(adapter('x', 'card-8', 'card-16', { legs: 2, watts: 450 }))).toBe('too-few-legs');
    expect(adapterRefusal(adapter('x', 'card-8', 'card-16', { legs: 1, watts: 150 }))).toBe('too-few-legs');
    expect(adapterRefusal(adapter('x', 'sata', 'sata', { legs: 2 }))).toBe('no-such-use');
    expect(adapterRefusal(adapter('x', 'card-8', 'card-16', { legs: 2, watts: 300 }))).toBeNull();
    expect(
      planCables(kit, [inlet('g', 'card-6')], by({ adapters: [adapter('x', 'peripheral-4', 'card-6')] })).assignments[0]
        ?.adapterId,
    ).toBeNull();
  });
});

describe('spare cables and spacing', () => {
  it("come after the supply's own, and only where those do not do", () => {
    const kit: CableKit = {
      sockets: sockets('drive', 'drive'),
      cables: [cable('bag', 'drive', [plug('sata', 400)], { spare: true }), cable('own', 'drive', [plug('sata', 900)])],
    };
    expect(planCables(kit, [inlet('a', 'sata')]).cables.map((item) => item.kitCableId)).toEqual(['own']);
    expect(
      planCables(kit, [inlet('a', 'sata'), inlet('b', 'sata')]).cables.map((item) => [item.kitCableId, item.spare]),
    ).toEqual([
      ['bag', true],
      ['own', false],
    ]);
    expect(planCables(kit, [inlet('a', 'sata')]).bagged).toEqual([]);
  });
  it('two inlets on one chain need the cable between them', () => {
    const kit: CableKit = {
      sockets: sockets('drive'),
      cables: [cable('s', 'drive', [plug('sata', 500), plug('sata', 600), plug('sata', 700)])],
    };
    expect(
      planCables(kit, [inlet('a', 'sata'), inlet('b', 'sata', { place: 'front' })]).assignments.map(
        (item) => item.plugIndex,
      ),
    ).toEqual([0, 2]);
    expect(
      planCables(kit, [inlet('a', 'sata'), inlet('b', 'sata', { reachMillimetres: 500 })])
        .assignments.map((item) => item.plugIndex)
        .sort(),
    ).toEqual([0, 2]);
    const tight: CableKit = { ...kit, cables: [cable('s', 'drive', [plug('sata', 500), plug('sata', 600)])] };
    expect(planCables(tight, [inlet('a', 'sata'), inlet('b', 'sata', { place: 'front' })]).open).toHaveLength(1);
  });
});

describe('plugs put elsewhere by hand', () => {
  const kit: CableKit = {
    sockets: sockets('main', 'cpu-card', 'cpu-card', 'drive', 'drive'),
    cables: [
      cable('cpu', 'cpu', [plug('cpu-4+4', 700)]),
      cable('card', 'card', [plug('card-6+2', 600), plug('card-6+2', 700)], { count: 2 }),
      cable('s', 'drive', [plug('sata', 400), plug('sata', 500)], { count: 2 }),
    ],
  };
  const machine = [
    inlet('p', 'cpu-8', { place: 'board-top' }),
    inlet('g', 'card-8', { place: 'slots', amps12: 8 }),
    inlet('a', 'sata'),
    inlet('b', 'sata'),
  ];
  it('stay where they are, and the rest goes around them', () => {
    const free = planCables(kit, machine);
    expect(free.assignments.find((item) => item.inletId === 'g')?.plugIndex).toBe(0);
    const plan = planCables(kit, machine, by({ pins: [pin('g', 'card', 1, 1, 'cpu-card 2')] }));
    expect(plan.assignments.find((item) => item.inletId === 'g')).toMatchObject({
      plugIndex: 1,
      copy: 1,
      socketLabel: 'cpu-card 2',
      pinned: true,
    });
    expect(plan.assignments.find((item) => item.inletId === 'p')?.socketLabel).toBe('cpu-card 3');
    expect(plan.refused).toEqual([]);
    expect(plan.open).toEqual([]);
  });
  it('that break a rule stay all the same, and the check says which', () => {
    const rules = by({ pins: [pin('a', 's', 0), pin('b', 's', 1)] });
    const heavy = machine
      .map((item) => (item.kind === 'sata' ? { ...item, amps12: 4 } : item))
      .map((item) => (item.id === 'b' ? { ...item, reachMillimetres: 560 } : item));
    const plan = planCables(kit, heavy, rules);
    expect(checkPlan(kit, heavy, plan.assignments, rules)).toEqual([
      { code: 'too-short', inletId: 'b', missingMillimetres: 60 },
      {
        code: 'chain-overload',
        cableCode: plan.assignments.find((item) => item.inletId === 'a')!.cableCode,
        rail: '+12',
        amps: 8,
        limitAmps: 7,
      },
      { code: 'spacing', inletId: 'b', otherInletId: 'a', hasMillimetres: 100, needsMillimetres: 260 },
    ]);
  });
  it('of a processor cable in a card inlet are wrong, serve nobody, and are told', () => {
    const plan = planCables(kit, machine, by({ pins: [pin('g', 'cpu', 0)] }));
    expect(plan.wrong).toMatchObject([{ inletId: 'g', plugKind: 'cpu-4+4' }]);
    expect(plan.refused).toMatchObject([{ code: 'no-fit', inletId: 'g' }]);
    expect(plan.open.map((item) => item.inletId)).toEqual(['p']);
    expect(plan.score.openRequired).toBe(2);
  });
  it('cannot share a plug, an inlet or a socket, nor go where nothing is', () => {
    const refusals = (...pins: Pin[]) => planCables(kit, machine, by({ pins })).refused.map((item) => item.code);
    expect(refusals(pin('a', 's', 0), pin('b', 's', 0))).toEqual(['plug-twice']);
    expect(refusals(pin('a', 's', 0), pin('a', 's', 1))).toEqual(['inlet-twice']);
    expect(refusals(pin('a', 's', 0, 0, 'drive 4'), pin('b', 's', 0, 1, 'drive 4'))).toEqual(['socket-twice']);
    expect(refusals(pin('a', 's', 0, 0, 'drive 4'), pin('b', 's', 1, 0, 'drive 5'))).toEqual(['two-sockets']);
    expect(refusals(pin('a', 's', 0, 0, 'main 1'))).toEqual(['socket-kind']);
    expect(refusals(pin('ghost', 's', 0), pin('a', 'other', 0), pin('a', 's', 7), pin('a', 's', 0, 9))).toEqual([
      'lost',
      'lost',
      'lost',
      'lost',
    ]);
    expect(
      planCables(
        { ...kit, sockets: sockets('drive') },
        machine,
        by({ pins: [pin('a', 's', 0), pin('b', 's', 0, 1)] }),
      ).refused.map((item) => [item.code, item.inletId]),
    ).toEqual([['no-socket', 'b']]);
  });
  it('never make a plan that serves more, nor one that breaks a rule elsewhere', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.nat(20),
        fc.nat(20),
        fc.nat(1),
        fc.nat(2),
        (seed, which, piece, copy, plugIndex) => {
          const { kit: some, inlets, rules } = randomProblem(seeded(seed));
          const item = inlets[which % inlets.length]!;
          const own = some.cables[piece % some.cables.length]!;
          const pins = [pin(item.id, own.id, plugIndex % own.plugs.length, copy % own.count)];
          const free = planCables(some, inlets, rules);
          const plan = planCables(some, inlets, { ...rules, pins });
          const served = (one: typeof plan) => [one.score.openRequired, one.score.openOptional];
          const broken = checkPlan(some, inlets, plan.assignments, { ...rules, pins });
          // What breaks a rule, breaks it with the plug that was put there.
          const kept = plan.assignments.find((one) => one.inletId === item.id);
          // An overloaded cable is a last way to serve a needed inlet, and is counted.
          const overloads = broken.flatMap((breach) => (breach.code === 'cable-overload' ? breach.cableCode : []));
          expect(new Set(overloads).size).toBeLessThanOrEqual(plan.score.overloaded);
          for (const breach of broken.filter(({ code }) => code !== 'cable-overload'))
            expect(
              'cableCode' in breach
                ? breach.cableCode === kept?.cableCode
                : 'inletId' in breach &&
                    (breach.inletId === item.id || ('otherInletId' in breach && breach.otherInletId === item.id)),
              JSON.stringify(breach),
            ).toBe(true);
          if (broken.length === overloads.length)
            expect(
              compareScores(
                { ...free.score, sharing: 0, foreign: 0, cables: 0, unevenness: 0, slackMillimetres: 0 },
                { ...plan.score, sharing: 0, foreign: 0, cables: 0, unevenness: 0, slackMillimetres: 0 },
              ),
              JSON.stringify([served(free), served(plan)]),
            ).toBeLessThanOrEqual(0);
          const named = new Set([...plan.assignments, ...plan.open, ...plan.wrong].map((one) => one.inletId));
          expect(named.size).toBe(inlets.length);
          expect(new Set(plan.cables.flatMap((one) => one.socketLabel ?? [])).size).toBe(
            plan.cables.filter((one) => one.socketLabel !== null).length,
          );
        },
      ),
      { numRuns: 300, seed: 61 },
    );
  });
});
