import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inletFamily, limits, plugServes, socketTakes, type CableFamily } from '../standards/index.ts';
import {
  checkPlan,
  planCables,
  rememberingPlanner,
  usualRules,
  type CableKit,
  type InletToServe,
  type KitCable,
} from './index.ts';
import { seeded } from '../simulate/index.ts';
import { numbered } from './plan-problem.test-help.ts';
import { compareScores, noScore, type PlanScore } from './score.ts';

const inlet = (id: string, kind: InletToServe['kind'], extra: Partial<InletToServe> = {}): InletToServe => ({
  id,
  kind,
  optional: false,
  place: 'slots',
  reachMillimetres: 300,
  amps12: 3,
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

describe('cable plan', () => {
  it('gives graphics inlets a cable each and leaves the rest in the bag', () => {
    const kit: CableKit = {
      sockets: sockets('main', 'cpu-card', 'cpu-card', 'cpu-card', 'cpu-card'),
      cables: [
        cable('main', 'main', [plug('main-24')]),
        cable('cpu', 'cpu', [plug('cpu-4+4', 650)], { count: 2 }),
        cable('card', 'card', [plug('card-6+2', 600), plug('card-6+2', 750)], { count: 3 }),
      ],
    };
    const plan = planCables(kit, [
      inlet('m', 'main-24'),
      inlet('c', 'cpu-8'),
      inlet('g1', 'card-8'),
      inlet('g2', 'card-8'),
    ]);
    expect(plan.open).toEqual([]);
    expect(plan.sharedCables).toBe(0);
    expect(new Set(plan.assignments.map((item) => item.cableCode)).size).toBe(4);
    expect(plan.bagged).toEqual([
      { kitCableId: 'cpu', count: 1 },
      { kitCableId: 'card', count: 1 },
    ]);
  });
  it("gives two of a maker's own inlets each its own plug, and none the plug of another name", () => {
    const kit: CableKit = {
      sockets: sockets('main'),
      cables: [
        cable('main', 'main', [plug('main-20+4')]),
        cable('own', 'main', [plug('main-own')], { fixed: true, ownPlug: 'Six, at the edge' }),
      ],
    };
    const made = { takes: 'main-24', gives: 'main-own', legs: 1, moulded: false, watts: null, count: 1 } as const;
    const adapters = ['Ten, in the middle', 'Twelve'].map((ownPlug) => ({
      ...made,
      id: ownPlug,
      ownPlug,
      addsMillimetres: 150,
    }));
    const ten = inlet('ten', 'main-own', { ownPlug: 'Ten, in the middle' });
    const six = inlet('six', 'main-own', { ownPlug: 'six, at the edge' });
    const rules = { ...usualRules, adapters };
    const plan = planCables(kit, [ten, six], rules);
    expect(plan.open).toEqual([]);
    expect(plan.assignments.map(({ inletId, kitCableId, adapterId }) => [inletId, kitCableId, adapterId])).toEqual([
      ['ten', 'main', 'Ten, in the middle'],
      ['six', 'own', null],
    ]);
    expect(checkPlan(kit, [ten, six], plan.assignments, rules)).toEqual([]);
    // The same plugs in inlets that are called otherwise break the rule.
    const others = [ten, six].map((item) => ({ ...item, ownPlug: 'Eight' }));
    expect(checkPlan(kit, others, plan.assignments, rules).map(({ code }) => code)).toEqual(['no-fit', 'no-fit']);
    const unnamed = [inlet('m', 'main-own')];
    expect(planCables(kit, unnamed, rules).open).toEqual([{ inletId: 'm', optional: false, reason: 'no-such-plug' }]);
    const pin = { inletId: 'ten', kitCableId: 'own', copy: 0, plugIndex: 0, socketLabel: null };
    expect(planCables(kit, [ten, six], { ...rules, pins: [pin] })).toMatchObject({
      refused: [{ inletId: 'ten', code: 'no-fit' }],
      wrong: [{ inletId: 'ten' }],
    });
  });
  it('remembers a plan only for cables that are alike in all it depends on', () => {
    const inlets = [inlet('m', 'main-own', { ownPlug: 'Ten' }), inlet('g', 'card-16', { amps12: 30 })];
    const cables = (changes: Partial<KitCable>, sixteen: Partial<KitCable> = {}) => [
      cable('own', 'main', [plug('main-own')], { fixed: true, ownPlug: 'Ten', ...changes }),
      cable('sixteen', 'card-16', [plug('card-16')], { codedWatts: 600, ...sixteen }),
    ];
    const kits = [
      cables({}),
      cables({ ownPlug: 'Twelve' }),
      cables({ plugs: [plug('main-own', 200)] }),
      cables({}, { codedWatts: 150 }),
      cables({}, { gauge: 22 }),
      cables({}),
    ].map((list): CableKit => ({ sockets: sockets('card-16'), cables: list }));
    const solve = rememberingPlanner();
    const seen = kits.map((kit) => planCables(kit, inlets, usualRules, solve));
    expect(seen).toEqual(kits.map((kit) => planCables(kit, inlets)));
    expect(seen.map(({ open }) => open.map(({ inletId }) => inletId).join())).toEqual(['', 'm', 'm', '', '', '']);
    expect(seen[0]).toEqual(seen[5]);
  });
  it('shares one card cable only where the load allows it', () => {
    const kit: CableKit = {
      sockets: sockets('card'),
      cables: [cable('card', 'card', [plug('card-6+2'), plug('card-6+2', 650)])],
    };
    const light = [inlet('g1', 'card-8', { amps12: 8 }), inlet('g2', 'card-8', { amps12: 8 })];
    expect(planCables(kit, light)).toMatchObject({ open: [], sharedCables: 1 });
    expect(planCables(kit, light, { ...usualRules, allowShared: false }).open).toHaveLength(1);
    const heavy = light.map((item) => ({ ...item, amps12: 12 }));
    expect(planCables(kit, heavy).open).toHaveLength(1);
  });
  it('counts a shared socket once: one for the processor, one card stays open', () => {
    const kit: CableKit = {
      sockets: sockets('cpu-card', 'cpu-card'),
      cables: [cable('cpu', 'cpu', [plug('cpu-4+4')]), cable('card', 'card', [plug('card-6+2')], { count: 2 })],
    };
    const plan = planCables(kit, [
      inlet('c', 'cpu-8'),
      inlet('g1', 'card-8', { amps12: 12 }),
      inlet('g2', 'card-8', { amps12: 12 }),
    ]);
    expect(plan.open).toEqual([{ inletId: 'g2', optional: false, reason: 'no-free-plug' }]);
  });
  it('says why an inlet stays open', () => {
    const kit: CableKit = { sockets: sockets('drive'), cables: [cable('s', 'drive', [plug('sata', 200)])] };
    const reason = (item: InletToServe) => planCables(kit, [item]).open[0]?.reason;
    expect(reason(inlet('x', 'sata'))).toBe('too-short');
    expect(reason(inlet('x', 'peripheral-4'))).toBe('no-such-plug');
    expect(planCables({ ...kit, sockets: [] }, [inlet('x', 'sata', { reachMillimetres: 100 })]).open[0]?.reason).toBe(
      'no-socket',
    );
  });
  it('never feeds an 8-pin inlet from a 6-pin plug, nor a card from drive plugs', () => {
    const kit: CableKit = {
      sockets: sockets('card', 'drive'),
      cables: [cable('six', 'card', [plug('card-6')]), cable('old', 'drive', [plug('peripheral-4')])],
    };
    expect(planCables(kit, [inlet('g', 'card-8')]).open).toHaveLength(1);
  });
  it('fills the required processor inlet before the optional one', () => {
    const kit: CableKit = { sockets: sockets('cpu'), cables: [cable('cpu', 'cpu', [plug('cpu-4+4')])] };
    expect(planCables(kit, [inlet('four', 'cpu-4', { optional: true }), inlet('eight', 'cpu-8')]).open).toEqual([
      { inletId: 'four', optional: true, reason: 'no-free-plug' },
    ]);
  });
  it('fills the larger of two required processor inlets', () => {
    const kit: CableKit = { sockets: sockets('cpu'), cables: [cable('cpu', 'cpu', [plug('cpu-4+4')])] };
    expect(
      planCables(kit, [inlet('four', 'cpu-4', { amps12: 2 }), inlet('eight', 'cpu-8', { amps12: 9 })]).open.map(
        (item) => item.inletId,
      ),
    ).toEqual(['four']);
  });
  it('keeps pumps and hubs off thin wire, and thin wire to what it carries', () => {
    const kit: CableKit = {
      sockets: sockets('drive', 'drive'),
      cables: [cable('thin', 'drive', [plug('sata'), plug('sata'), plug('sata')], { gauge: 22 })],
    };
    expect(planCables(kit, [inlet('hub', 'sata', { amps12: 1, cools: true })]).open).toEqual([
      { inletId: 'hub', optional: false, reason: 'no-such-plug' },
    ]);
    expect(
      planCables(
        kit,
        [1, 2, 3].map((n) => inlet(`d${n}`, 'sata', { amps12: 1.2 })),
      ).open,
    ).toHaveLength(1);
    const both: CableKit = { ...kit, cables: [...kit.cables, cable('usual', 'drive', [plug('sata')])] };
    expect(
      planCables(both, [
        inlet('d', 'sata', { amps12: 1 }),
        inlet('hub', 'sata', { amps12: 1, cools: true }),
      ]).assignments.find((item) => item.inletId === 'hub')?.kitCableId,
    ).toBe('usual');
  });
  it('keeps a drive chain inside its amps', () => {
    const kit: CableKit = {
      sockets: sockets('drive', 'drive'),
      cables: [cable('s', 'drive', [plug('sata'), plug('sata'), plug('sata'), plug('sata')], { count: 2 })],
    };
    const plan = planCables(
      kit,
      [1, 2, 3, 4].map((n) => inlet(`d${n}`, 'sata', { amps12: 2.2 })),
    );
    expect(plan.open).toEqual([]);
    expect(plan.cables.map((item) => item.inletIds.length)).toEqual([2, 2]);
  });
  it('fills a chain to its very limit: 2.2, 2.6 and 2.2 A are 7 A', () => {
    const kit: CableKit = {
      sockets: sockets('drive'),
      cables: [cable('s', 'drive', [plug('sata'), plug('sata'), plug('sata')])],
    };
    expect(
      planCables(
        kit,
        [2.2, 2.6, 2.2].map((amps12, n) => inlet(`d${n}`, 'sata', { amps12 })),
      ).open,
    ).toEqual([]);
    expect(
      planCables(
        kit,
        [2.2, 2.6, 2.3].map((amps12, n) => inlet(`d${n}`, 'sata', { amps12 })),
      ).open,
    ).toHaveLength(1);
  });
  it('takes fixed cables without a socket', () => {
    expect(
      planCables({ sockets: [], cables: [cable('m', 'main', [plug('main-20+4')], { fixed: true })] }, [
        inlet('m', 'main-20'),
      ]).assignments[0],
    ).toMatchObject({ socketLabel: null, plugKind: 'main-20+4' });
  });
});

/** Tries every way to put inlets on plugs; only for very small cases. */
function bruteForce(kit: CableKit, inlets: readonly InletToServe[]): PlanScore {
  const pieces = kit.cables.flatMap((item) => Array.from({ length: item.count }, () => item));
  const plugs = pieces.flatMap((item, piece) => item.plugs.map((one, index) => ({ piece, index, ...one })));
  let best: PlanScore | null = null;
  function visit(depth: number, used: (number | null)[]): void {
    if (depth < inlets.length) {
      visit(depth + 1, [...used, null]);
      plugs.forEach((one, index) => {
        if (
          (!used.includes(index) || halves(index, depth, used)) &&
          plugServes(one.kind, inlets[depth]!.kind) &&
          one.millimetres >= inlets[depth]!.reachMillimetres
        )
          visit(depth + 1, [...used, index]);
      });
      return;
    }
    let score: PlanScore = { ...noScore };
    const onPiece = new Map<number, InletToServe[]>();
    used.forEach((index, position) => {
      const item = inlets[position]!;
      if (index === null) {
        score = item.optional
          ? { ...score, openOptional: score.openOptional + 1 }
          : {
              ...score,
              openRequired: score.openRequired + 1,
              openLarger: score.openLarger + (item.kind === 'cpu-8' ? 1 : 0),
            };
        return;
      }
      const one = plugs[index]!;
      onPiece.set(one.piece, [...(onPiece.get(one.piece) ?? []), item]);
      score = { ...score, slackMillimetres: score.slackMillimetres + one.millimetres - item.reachMillimetres };
    });
    const keptFor = (label: string) => kit.cables.some(({ onlySocket }) => onlySocket === label);
    const free = kit.sockets.filter(({ label }) => !keptFor(label));
    // Every end at the supply needs a socket; both ends of a 16-pin cable with two go where card cables go.
    const ends = [...onPiece.keys()].flatMap((piece) => {
      const { fixed, twoEnded, onlySocket, family } = pieces[piece]!;
      if (fixed || onlySocket !== undefined) return [];
      return twoEnded === true ? (['card', 'card'] as const) : [family];
    });
    const fits = (rest: CableFamily[], left: typeof free): boolean =>
      rest.length === 0 ||
      left.some(
        (socket, index) =>
          socketTakes(socket.kind, rest[0]!) &&
          fits(
            rest.slice(1),
            left.filter((_, other) => other !== index),
          ),
      );
    if (!fits(ends, free)) return;
    for (const [piece, items] of onPiece) {
      const family = pieces[piece]!.family;
      const amps12 = items.reduce((sum, item) => sum + item.amps12, 0);
      if (items.some((item) => inletFamily(item.kind) !== family)) return;
      const at = (item: InletToServe) => plugs[used[inlets.indexOf(item)]!]!.millimetres;
      if (
        items.some((item, index) =>
          items
            .slice(0, index)
            .some(
              (other) =>
                Math.abs(at(item) - at(other)) <
                Math.max(
                  item.place === other.place ? 0 : 150,
                  Math.abs(item.reachMillimetres - other.reachMillimetres),
                ),
            ),
        )
      )
        return;
      if (family === 'main' && items.length > 1) return;
      const graphics = family === 'card' || family === 'card-16';
      if (graphics && items.length > 1 && amps12 * 12 > limits.sharedCardCableWatts) return;
      if (family === 'drive' && items.length > 1 && amps12 > limits.driveChainAmps) return;
      score = {
        ...score,
        cables: score.cables + (family === 'drive' ? 0 : 1),
        overloaded: score.overloaded + (amps12 > wires(pieces[piece]!) * 7 ? 1 : 0),
        sharing: score.sharing + (graphics ? items.length - 1 : 0),
        unevenness: score.unevenness + amps12 ** 2,
      };
    }
    if (best === null || compareScores(score, best) < 0) best = score;
  }
  visit(0, []);
  return best!;

  /** The halves of a 4+4 plug may go into two 4-pin inlets. */
  function halves(index: number, depth: number, used: readonly (number | null)[]): boolean {
    const there = used.flatMap((taken, position) => (taken === index ? [inlets[position]!] : []));
    return (
      plugs[index]!.kind === 'cpu-4+4' &&
      there.length === 1 &&
      there[0]!.kind === 'cpu-4' &&
      inlets[depth]!.kind === 'cpu-4'
    );
  }

  /** How many wires of a cable carry +12. */
  function wires(cable: KitCable): number {
    if (cable.family === 'drive') return 1;
    if (cable.family === 'card') return 3;
    if (cable.family === 'card-16') return 6;
    return cable.plugs.every((plug) => plug.kind === 'cpu-4') ? 2 : 4;
  }
}

describe('against brute force', () => {
  const kinds = {
    card: ['card-8', 'card-6'],
    cpu: ['cpu-8', 'cpu-4'],
    drive: ['sata', 'peripheral-4'],
    'card-16': ['card-16'],
  } as const;
  const plugsOf = {
    card: ['card-6+2', 'card-6'],
    cpu: ['cpu-4+4', 'cpu-4'],
    drive: ['sata', 'peripheral-4'],
    'card-16': ['card-16'],
  } as const;
  const family = fc.constantFrom('card', 'cpu', 'drive', 'card-16', 'card-16');
  const anyCable = family.chain((name) =>
    fc.record({
      family: fc.constant(name),
      fixed: fc.boolean(),
      twoEnded: name === 'card-16' ? fc.boolean() : fc.constant(false),
      count: fc.integer({ min: 1, max: 2 }),
      plugs: fc.array(
        fc.record({ kind: fc.constantFrom(...plugsOf[name]), millimetres: fc.constantFrom(250, 400, 550) }),
        { minLength: 1, maxLength: 2 },
      ),
    }),
  );
  const anyInlet = family.chain((name) =>
    fc.record({
      kind: fc.constantFrom(...kinds[name]),
      optional: fc.boolean(),
      reachMillimetres: fc.constantFrom(200, 350, 500),
      place: fc.constantFrom('slots' as const, 'front' as const),
      amps12: fc.constantFrom(1, 5, 11, 23),
    }),
  );
  it('reaches the same score on every small case', () => {
    fc.assert(
      fc.property(
        fc.array(anyCable, { minLength: 1, maxLength: 3 }),
        fc.array(anyInlet, { minLength: 1, maxLength: 4 }),
        fc.array(fc.constantFrom('cpu', 'card', 'cpu-card', 'cpu-card', 'card-16', 'drive'), { maxLength: 5 }),
        fc.option(fc.nat(), { nil: undefined }),
        (cables, inlets, socketKinds, numberedBy) => {
          const all = sockets(...socketKinds);
          const plain = cables.map((item, index): KitCable => ({ ...item, id: `k${index}`, gauge: 18 }));
          const kit: CableKit = {
            sockets: all,
            cables: numberedBy === undefined ? plain : numbered(seeded(numberedBy), plain, all),
          };
          const wanted = inlets.map((item, index) => ({ ...item, id: `i${index}`, amps5: 0, amps33: 0 }));
          const plan = planCables(kit, wanted);
          expect(
            compareScores(plan.score, bruteForce(kit, wanted)),
            JSON.stringify({ plan: plan.score, brute: bruteForce(kit, wanted) }),
          ).toBe(0);
          expect(planCables(kit, wanted)).toEqual(plan);
          expect(plan.assignments.length + plan.open.length).toBe(wanted.length);
          const breaches = checkPlan(kit, wanted, plan.assignments, usualRules);
          expect(breaches.filter(({ code }) => code === 'socket-twice' || code === 'socket-kind')).toEqual([]);
        },
      ),
      { numRuns: 600, seed: 20261124 },
    );
  });
});
