import { describe, expect, it } from 'vitest';
import { seeded } from '../simulate/index.ts';
import { openBecauseText } from '../wording/index.ts';
import { explainOpen, planCables, usualRules, type CableKit, type InletToServe, type KitCable } from './index.ts';
import { randomProblem } from './plan-problem.test-help.ts';

const inlet = (id: string, kind: InletToServe['kind'], extra: Partial<InletToServe> = {}): InletToServe => ({
  id,
  kind,
  optional: false,
  place: 'slots',
  reachMillimetres: 300,
  amps12: 12,
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
const because = (
  kit: CableKit,
  inlets: readonly InletToServe[],
  rules = usualRules,
  heldBack?: Parameters<typeof explainOpen>[4],
) => explainOpen(kit, inlets, rules, planCables(kit, inlets, rules), heldBack);

describe('why an inlet stays open', () => {
  it('three card inlets, two sockets that could feed them', () => {
    const kit: CableKit = {
      sockets: sockets('card', 'card'),
      cables: [cable('card', 'card', [plug('card-6+2')], { count: 4 })],
    };
    const told = because(kit, [inlet('a', 'card-8'), inlet('b', 'card-8'), inlet('c', 'card-8')]);
    expect(told).toMatchObject([
      {
        together: expect.arrayContaining(['a', 'b', 'c']) as string[],
        shortages: [{ code: 'sockets', have: 2 }],
        remedies: [{ code: 'other-supply', family: 'card', sockets: 3 }],
      },
    ]);
    expect(
      openBecauseText(
        told[0]!,
        () => 'card-8',
        (id) => id,
        (id) => id,
      ),
    ).toEqual({
      why: expect.stringMatching(/^3 inlets \(.*\): 2 sockets that could feed them\.$/) as string,
      remedy: 'It would take: a supply that feeds 3 card inlets.',
    });
  });
  it('a processor cable that takes the socket is part of the set', () => {
    const kit: CableKit = {
      sockets: sockets('cpu-card', 'cpu-card'),
      cables: [cable('cpu', 'cpu', [plug('cpu-4+4')]), cable('card', 'card', [plug('card-6+2')], { count: 2 })],
    };
    expect(
      [...because(kit, [inlet('p', 'cpu-8'), inlet('a', 'card-8'), inlet('b', 'card-8')])[0]!.together].sort(),
    ).toEqual(['a', 'b', 'p']);
  });
  it('one more cable, where a socket waits for it', () => {
    const kit: CableKit = { sockets: sockets('card', 'card'), cables: [cable('card', 'card', [plug('card-6+2')])] };
    expect(because(kit, [inlet('a', 'card-8'), inlet('b', 'card-8')])[0]).toMatchObject({
      shortages: [{ code: 'cables', have: 1 }],
      remedies: [{ code: 'cable', kitCableId: 'card', count: 1 }],
    });
  });
  it('an extension, to the ten millimetres', () => {
    const kit: CableKit = { sockets: sockets('cpu'), cables: [cable('cpu', 'cpu', [plug('cpu-4+4', 500)])] };
    expect(because(kit, [inlet('p', 'cpu-8', { reachMillimetres: 615 })])).toEqual([
      {
        inletId: 'p',
        together: ['p'],
        shortages: [{ code: 'reach', missingMillimetres: 120 }],
        remedies: [{ code: 'extension', inletId: 'p', kind: 'cpu-8', millimetres: 120 }],
        proved: true,
      },
    ]);
  });
  it('no plug of its kind; the rule against sharing; their load', () => {
    const kit: CableKit = {
      sockets: sockets('card'),
      cables: [cable('card', 'card', [plug('card-6+2'), plug('card-6+2', 600)])],
    };
    expect(because(kit, [inlet('x', 'card-16')])[0]).toMatchObject({
      together: ['x'],
      shortages: [{ code: 'plug-kind' }],
      remedies: [{ code: 'other-supply', family: 'card-16' }],
    });
    const light = [inlet('a', 'card-8', { amps12: 6 }), inlet('b', 'card-8', { amps12: 6 })];
    expect(because(kit, light, { ...usualRules, allowShared: false })[0]!.remedies).toContainEqual({
      code: 'allow-sharing',
    });
    expect(
      because(
        kit,
        light.map((item) => ({ ...item, amps12: 12 })),
      )[0]!.shortages,
    ).toContainEqual({ code: 'sharing', by: 'load' });
  });
  it('names what the shop holds back: a spare cable, an adapter, a plug moved by hand', () => {
    const kit: CableKit = { sockets: sockets('drive', 'drive'), cables: [cable('s', 'drive', [plug('sata', 400)])] };
    const two = [inlet('a', 'sata', { amps12: 1 }), inlet('b', 'sata', { amps12: 1 })];
    const spare = cable('bag:1', 'drive', [plug('sata', 600)], { spare: true });
    expect(because(kit, two, usualRules, { spares: [spare], adapters: [] })[0]!.remedies).toContainEqual({
      code: 'spare',
      kitCableId: 'bag:1',
    });
    const old: CableKit = { ...kit, cables: [...kit.cables, cable('old', 'drive', [plug('peripheral-4')])] };
    const flat = {
      id: 'flat',
      takes: 'peripheral-4',
      gives: 'sata',
      legs: 1,
      moulded: false,
      addsMillimetres: 100,
      watts: null,
      count: 1,
    } as const;
    expect(because(old, two, usualRules, { spares: [], adapters: [flat] })[0]!.remedies).toContainEqual({
      code: 'adapter',
      adapterId: 'flat',
    });
    const long: CableKit = {
      sockets: sockets('drive'),
      cables: [cable('s', 'drive', [plug('sata', 400), plug('sata', 700)])],
    };
    const far = [inlet('near', 'sata', { amps12: 1 }), inlet('far', 'sata', { amps12: 1, reachMillimetres: 600 })];
    expect(
      because(long, far, {
        ...usualRules,
        pins: [{ inletId: 'near', kitCableId: 's', copy: 0, plugIndex: 1, socketLabel: null }],
      })[0]!.remedies,
    ).toContainEqual({ code: 'move-pin', inletId: 'near' });
  });
  it('gives sets that cannot be served, none with an inlet too many; the smallest where few are tried', () => {
    const random = seeded(8);
    let told = 0;
    for (let run = 0; run < 150; run += 1) {
      const { kit, inlets, rules } = randomProblem(random);
      const plan = planCables(kit, inlets, rules);
      for (const item of explainOpen(kit, inlets, rules, plan)) {
        told += 1;
        const set = inlets.filter((one) => item.together.includes(one.id)).map((one) => ({ ...one, optional: false }));
        // Served as well as the plan serves: with no more overloaded cables than it has.
        const open = (of: readonly InletToServe[]) => {
          const { open: left, score } = planCables(kit, of, rules);
          return left.length + Math.max(0, score.overloaded - plan.score.overloaded);
        };
        expect(open(set), `machine ${run}`).toBeGreaterThan(0);
        for (const one of set)
          expect(open(set.filter((other) => other !== one)), `machine ${run} without ${one.id}`).toBe(0);
        expect(item.remedies.length).toBeGreaterThan(0);
      }
    }
    expect(told).toBeGreaterThan(60);
  });
});
