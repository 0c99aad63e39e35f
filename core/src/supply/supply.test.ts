import { describe, expect, it } from 'vitest';
import {
  planCables,
  planFamily,
  rememberingPlanner,
  usualRules,
  type Adapter,
  type CablePlan,
  type KitCable,
} from '../cable/index.ts';
import { assessLoad, demandOf, plugProblems } from '../load/index.ts';
import { partsAt } from '../machine/index.ts';
import { cableFamilies } from '../standards/index.ts';
import {
  candidateRow,
  hungByPlan,
  inletsToServe,
  judgeSupply,
  noWants,
  nothingFits,
  rankSupplies,
  type FitQuestion,
  type FitReason,
} from './index.ts';
import { asking, machines, part, supplies, supplyNamed, tower, weights } from './machines.test-help.ts';

const game = [part('board', 'b'), part('processor-65', 'p'), part('card-88', 'c'), part('drive-flat', 'd')];
const codes = (id: string, asked: FitQuestion = asking(game)) =>
  judgeSupply(supplyNamed(id), asked).reasons.map((reason) => reason.code);
const only = (id: string, asked: FitQuestion): FitReason | undefined => judgeSupply(supplyNamed(id), asked).reasons[0];

describe('fit', () => {
  it('drops by shape, depth and mains', () => {
    expect(codes('ostrelle-mini-600')).toContain('shape');
    expect(codes('corvane-650-s', asking(game, { ...tower, depthMillimetres: 180 }))).toEqual(['depth']);
    const abroad = asking(game, tower, { tariff: { mainsVolts: 120, minorPerKilowattHour: 30, breakerAmps: 15 } });
    expect(codes('brackholm-500-plain', abroad)).toContain('mains');
    expect(codes('corvane-650-s', abroad)).not.toContain('mains');
  });
  it('lets two card plugs share a cable only where the shop says so, and nothing else depends on it', () => {
    const rank = (sharedCardCable: boolean) =>
      new Map(
        supplies.map((model) => [model.id, judgeSupply(model, asking(game, tower, { sharedCardCable }))] as const),
      );
    const [shared, apart] = [rank(true), rank(false)];
    const changed = supplies.filter((model) => shared.get(model.id)!.fits !== apart.get(model.id)!.fits);
    expect(changed.length).toBeGreaterThan(0);
    for (const { id } of supplies) {
      const { plan } = apart.get(id)!;
      // Where it is not allowed no cable has two plugs in card inlets.
      const perCable = new Map<string, number>();
      for (const piece of plan?.assignments ?? []) {
        const inlet = inletsToServe(game, 'tower').find((item) => item.id === piece.inletId)!;
        if (!inlet.kind.startsWith('card-')) continue;
        const cable = `${piece.kitCableId} ${piece.copy}`;
        perCable.set(cable, (perCable.get(cable) ?? 0) + 1);
      }
      expect([...perCable.values()].every((plugs) => plugs === 1)).toBe(true);
      if (apart.get(id)!.fits) expect(shared.get(id)!.fits).toBe(true);
    }
    for (const { id } of changed) {
      expect(shared.get(id)!.fits).toBe(true);
      expect(apart.get(id)!.reasons.map((reason) => reason.code)).toEqual(['inlet']);
    }
  });
  it('does not ask for depth that nobody measured', () => {
    expect(codes('corvane-650-s', asking(game, { ...tower, depthMillimetres: null }))).toEqual([]);
  });
  it('minds holes and the side of the fan', () => {
    expect(codes('corvane-650-s', asking(game, { ...tower, ownHoles: true }))).toEqual(['holes']);
    expect(codes('corvane-650-s', asking(game, { ...tower, ventClosed: true }))).toEqual(['vent']);
    expect(
      judgeSupply({ ...supplyNamed('corvane-650-s'), fan: 'rear' }, asking(game, { ...tower, ventClosed: true })).fits,
    ).toBe(true);
  });
  it('drops by load and by what its kit cannot serve', () => {
    expect(codes('corvane-450-b')).toEqual(['load']);
    expect(codes('brackholm-500-plain')).toContain('inlet');
  });
  it('warns of what is far too large, with what that costs; drops it only where the shop says so', () => {
    const small = [part('board', 'b'), part('processor-35', 'p')];
    const warned = judgeSupply(supplyNamed('corvane-1200-s'), asking(small));
    expect(warned).toMatchObject({ fits: true, warnings: [{ code: 'too-large', ratingWatts: 1200 }] });
    expect(warned.warnings[0]!.idleEfficiency).toBeLessThan(0.75);
    expect(warned.warnings[0]!.minorAYear).toBeCloseTo(warned.cost.minorAYear, 9);
    expect(codes('corvane-1200-s', asking(small, tower, { dropTooLarge: true }))).toEqual(['too-large']);
  });
  it('asks by the chosen school', () => {
    const light = [part('board', 'b'), part('processor-65', 'p'), part('card-8', 'c')];
    expect(codes('corvane-550-b', asking(light))).toEqual([]);
    expect(codes('corvane-550-b', asking(light, tower, { school: 'half-load' }))).toEqual(['school']);
    expect(codes('corvane-550-b', asking(light, tower, { school: 'card-advice', cardAdviceWatts: 600 }))).toEqual([
      'school',
    ]);
    expect(codes('corvane-550-b', asking(light, tower, { school: 'card-advice' }))).toEqual([]);
  });
  it('drops by what is wished: protections, correction, noise, warranty; an unknown noise is no quiet one', () => {
    const quiet = { ...supplyNamed('corvane-650-s'), noiseDecibels: null };
    const wants = (changes: Partial<typeof noWants>) => asking(game, tower, { wants: { ...noWants, ...changes } });
    expect(only('corvane-650-b', wants({ protections: ['over-temperature'] }))).toEqual({
      code: 'protection',
      missing: 'over-temperature',
    });
    expect(judgeSupply({ ...quiet, correction: 'passive' }, wants({ activeCorrection: true })).reasons).toEqual([
      { code: 'correction' },
    ]);
    expect(judgeSupply(quiet, wants({ noisiestDecibels: 30 })).reasons).toEqual([
      { code: 'noise', decibels: null, mostDecibels: 30 },
    ]);
    expect(judgeSupply({ ...quiet, warrantyYears: 2 }, wants({ leastWarrantyYears: 5 })).reasons).toEqual([
      { code: 'warranty', years: 2, leastYears: 5 },
    ]);
  });
  it('halves what hangs on a cable with two ends in sockets of two outputs', () => {
    const quiet = supplyNamed('tarnwick-quiet-850');
    const sockets = quiet.kit.sockets.map((socket, index) => ({
      ...socket,
      output: index % 2 === 0 ? '12V1' : '12V2',
    }));
    const model = { ...quiet, kit: { ...quiet.kit, sockets } };
    const asked = asking([part('board-88', 'b'), part('processor-125', 'p'), part('card-16', 'c')]);
    const plan = planCables(model.kit, asked.inlets);
    const hung = hungByPlan(model, plan, asked);
    const [one, other, ...rest] = hung.filter(({ family }) => family === 'card-16');
    expect(rest).toEqual([]);
    expect([one!.output, other!.output].sort()).toEqual(['12V1', '12V2']);
    const whole = hungByPlan(quiet, plan, asked).filter(({ family }) => family === 'card-16');
    expect(whole.map(({ output }) => output)).toEqual([null]);
    expect(one!.amps.lasting + other!.amps.lasting).toBeCloseTo(whole[0]!.amps.lasting, 9);
    expect(one!.amps['100']).toBeCloseTo(other!.amps['100'], 9);
  });
  it('counts what hangs on each +12 output of a supply with several', () => {
    const dual = supplyNamed('brackholm-700-dual');
    const asked = asking([
      part('board', 'b'),
      part('processor-125', 'p', { figures: { likelyWatts: 300, highWatts: 320, shortWatts: 320 } }),
      part('drive-flat', 'd'),
    ]);
    const plan = planCables(dual.kit, asked.inlets);
    expect(hungByPlan(dual, plan, asked).map((load) => load.family)).toEqual(expect.arrayContaining(['main', 'cpu']));
    const judged = judgeSupply(dual, asked);
    const cpu = judged.load.findings.find((finding) => finding.code === 'twelve-output' && finding.subject === '12V2')!;
    expect(cpu.figure).toBeCloseTo(300 / 0.87 / 12, 6);
    expect(cpu.limit).toBe(32);
    expect(
      judgeSupply(
        {
          ...dual,
          label: {
            ...dual.label,
            rails: dual.label.rails.map((rail) => (rail.label === '12V2' ? { ...rail, amps: 20 } : rail)),
          },
        },
        asked,
      ).reasons[0],
    ).toMatchObject({ code: 'load', finding: { code: 'twelve-output', subject: '12V2' } });
  });
});

describe('almost', () => {
  it('an SFX supply in an ATX opening needs a bracket', () => {
    const judged = judgeSupply(
      supplyNamed('ostrelle-mini-450'),
      asking([part('board-4', 'b'), part('processor-65', 'p'), part('drive-card', 'd')], { ...tower, layout: 'small' }),
    );
    expect(judged).toMatchObject({ class: 'almost', remedies: [{ code: 'bracket', shape: 'SFX', into: 'ATX' }] });
  });
  it('drives that start one after the other', () => {
    const many = [
      part('board', 'b'),
      part('processor-65', 'p'),
      ...Array.from({ length: 12 }, (_, index) => part('drive-35', `d${index}`, { figures: { spinUpAmps: 3.5 } })),
    ];
    const roomy = {
      ...supplyNamed('corvane-450-b'),
      kit: {
        ...supplyNamed('corvane-450-b').kit,
        cables: [
          ...supplyNamed('corvane-450-b').kit.cables,
          {
            id: 'more',
            family: 'drive' as const,
            fixed: true,
            count: 6,
            gauge: 18 as const,
            plugs: [
              { kind: 'sata' as const, millimetres: 600 },
              { kind: 'sata' as const, millimetres: 700 },
            ],
          },
        ],
      },
    };
    expect(judgeSupply(roomy, asking(many))).toMatchObject({ class: 'almost', remedies: [{ code: 'staggered' }] });
    expect(judgeSupply(roomy, asking(many, tower, { staggered: true })).fits).toBe(true);
  });
  it('a card that draws less: exactly so much that it then fits, and not a watt of slack', () => {
    const plain = supplyNamed('corvane-550-s');
    const heavy = (less: number) => [
      part('board', 'b'),
      part('processor-105', 'p'),
      part('card-88', 'c', {
        figures: { likelyWatts: 320 - less, lowWatts: 100, highWatts: 400, shortWatts: 340 - less },
      }),
    ];
    const judged = judgeSupply(plain, asking(heavy(0)));
    expect(judged.class).toBe('almost');
    const watts = judged.cardReduction!;
    expect(judged.remedies).toEqual([{ code: 'card-limit', partId: 'c', watts: Math.ceil(watts) }]);
    expect(judgeSupply(plain, asking(heavy(watts + 0.01))).fits).toBe(true);
    expect(judgeSupply(plain, asking(heavy(watts - 0.5))).fits).toBe(false);
  });
  it('one more cable of its own kit where a socket is left, an extension where a plug is a little short', () => {
    const bare = supplyNamed('corvane-650-s');
    const fewer = {
      ...bare,
      kit: {
        ...bare.kit,
        cables: bare.kit.cables.map((cable) =>
          cable.family === 'card' ? { ...cable, count: 1, plugs: cable.plugs.slice(0, 1) } : cable,
        ),
      },
    };
    const two = [part('board', 'b'), part('processor-65', 'p'), part('card-66', 'c')];
    // Counted by cable: both inlets need one each, and the kit has one.
    expect(judgeSupply(fewer, asking(two)).remedies).toEqual([
      { code: 'cable', kitCableId: 'card', count: 1, inletIds: ['c-1'] },
    ]);
    // Without a socket, or without a cable of such a kind at all, none is invented.
    const without = (kit: Partial<typeof bare.kit>) =>
      judgeSupply({ ...fewer, kit: { ...fewer.kit, ...kit } }, asking(two)).class;
    const oneSocket = fewer.kit.sockets.filter((socket) => socket.kind.includes('card')).slice(1);
    expect(without({ sockets: fewer.kit.sockets.filter((socket) => !oneSocket.includes(socket)) })).toBe('falls');
    expect(without({ cables: fewer.kit.cables.filter((cable) => cable.family !== 'card') })).toBe('falls');
    // Another piece of one that goes into the socket of its number only would go nowhere.
    const numbered = fewer.kit.cables.map((cable) =>
      cable.family === 'card' ? { ...cable, onlySocket: 'CPU/CARD 3' } : cable,
    );
    expect(without({ cables: numbered })).toBe('falls');
    const light = [part('board', 'b'), part('processor-65', 'p'), part('card-8', 'c')];
    const short = {
      ...bare,
      kit: {
        ...bare.kit,
        cables: bare.kit.cables.map((cable) =>
          cable.family === 'cpu' ? { ...cable, plugs: [{ kind: 'cpu-4+4' as const, millimetres: 500 }] } : cable,
        ),
      },
    };
    expect(judgeSupply(short, asking(light)).remedies).toEqual([
      { code: 'extension', inletId: 'b-1', millimetres: 100 },
    ]);
  });
});

describe('what the shop has at hand', () => {
  const bare = supplyNamed('corvane-650-s');
  const noCard = { ...bare, kit: { ...bare.kit, cables: bare.kit.cables.filter((cable) => cable.family !== 'card') } };
  const light = [part('board', 'b'), part('processor-65', 'p'), part('card-8', 'c')];
  const spare: KitCable = {
    id: 'bag:spare',
    family: 'card',
    fixed: false,
    count: 1,
    gauge: 18,
    plugs: [{ kind: 'card-6+2', millimetres: 650 }],
    spare: true,
  };
  it('counts in choosing: a spare cable that is safe on this supply, and on no other', () => {
    expect(codes('corvane-650-s')).toEqual([]);
    expect(judgeSupply(noCard, asking(light)).reasons).toMatchObject([{ code: 'inlet', inletId: 'c-0' }]);
    const spares = new Map([[bare.id, [spare]]]);
    const judged = judgeSupply(noCard, asking(light, tower, { spares }));
    expect(judged.fits).toBe(true);
    expect(judged.plan.cables.find((cable) => cable.family === 'card')).toMatchObject({ spare: true });
    expect(judgeSupply({ ...noCard, id: 'another' }, asking(light, tower, { spares })).fits).toBe(false);
  });
  it('counts in choosing: an adapter, within its watts and its legs', () => {
    const sixteen: Adapter = {
      id: 'two-to-sixteen',
      takes: 'card-8',
      gives: 'card-16',
      legs: 2,
      moulded: false,
      addsMillimetres: 150,
      watts: 300,
      count: 1,
    };
    const card = [part('board', 'b'), part('processor-65', 'p'), part('card-16-300', 'c')];
    expect(codes('corvane-650-s', asking(card))).toContain('inlet');
    expect(codes('corvane-650-s', asking(card, tower, { adapters: [sixteen] }))).not.toContain('inlet');
    expect(codes('corvane-650-s', asking(card, tower, { adapters: [{ ...sixteen, watts: 150 }] }))).toContain('inlet');
  });
});

/** How many cables of each family a plan uses. */
function familiesOf({ cables }: CablePlan): string {
  return cableFamilies
    .map((family) => ({ family, count: cables.filter((cable) => cable.family === family).length }))
    .filter(({ count }) => count > 0)
    .map(({ family, count }) => `${count} ${family}`)
    .join(', ');
}

describe('thirty machines', () => {
  it.each(machines)(
    '$name',
    ({ parts, casing, lastingWatts, fitting, best, cables, reasons, remedies, on400, on650 }) => {
      const demand = demandOf(partsAt(parts, 'planned'));
      expect(demand.sustainedWatts).toBeCloseTo(lastingWatts, 6);
      const said = (id: string) => {
        const { word, deciding } = assessLoad(demand, supplyNamed(id).label);
        return [word, deciding?.code, deciding?.moment];
      };
      expect([said('brackholm-400-plain'), said('corvane-650-b')]).toEqual([on400, on650]);
      const ranked = rankSupplies(supplies, asking(parts, casing), weights, 'EUR');
      const fits = fitting > 0;
      expect(ranked.filter((candidate) => candidate.fits)).toHaveLength(fitting);
      const [first] = ranked;
      expect(first!.model.id).toBe(best);
      expect([...new Set(first!.reasons.map((reason) => reason.code))]).toEqual(reasons);
      expect(first!.remedies.map((remedy) => remedy.code)).toEqual(remedies);
      expect(familiesOf(first!.plan)).toBe(cables);
      const miss = nothingFits(ranked.map(candidateRow));
      expect(miss === null).toBe(fits);
      if (miss !== null) expect(miss.nearest.length).toBe(3);
      // Whatever fits serves every needed inlet and carries the load by its own words.
      for (const candidate of ranked.filter((item) => item.fits)) {
        expect(candidate.plan.open.filter((open) => !open.optional)).toEqual([]);
        expect(candidate.load.word).toBe('enough');
      }
    },
  );
  it('say why nothing fits: its own connector, its own holes, a card beyond every plug', () => {
    const reasonsOf = (name: string) => {
      const machine = machines.find((item) => item.name === name)!;
      return rankSupplies(supplies, asking(machine.parts, machine.casing), weights, 'EUR').map((candidate) =>
        candidate.reasons.map((reason) => reason.code),
      );
    };
    expect(reasonsOf('maker-built with its own connector').every((reasons) => reasons.includes('inlet'))).toBe(true);
    expect(reasonsOf('maker-built with its own holes').every((reasons) => reasons.includes('holes'))).toBe(true);
    const large = machines.find((item) => item.name === 'a card of 1200 W')!;
    expect(plugProblems(large.parts)).toContainEqual(
      expect.objectContaining({ kind: 'plug', subject: 'Card 16-pin', limit: 600 }),
    );
    const miss = nothingFits(
      rankSupplies(supplies, asking(large.parts, large.casing), weights, 'EUR').map(candidateRow),
    );
    expect(miss!.smallerCard!.watts).toBeGreaterThan(450);
  });
});

describe('a planner that remembers', () => {
  it('gives the plan of the plain one for every supply and machine', () => {
    for (const { parts, casing } of machines) {
      const inlets = inletsToServe(parts, casing.layout);
      const solve = rememberingPlanner();
      for (const model of [...supplies, ...supplies])
        expect(planCables(model.kit, inlets, usualRules, solve)).toEqual(
          planCables(model.kit, inlets, usualRules, planFamily),
        );
    }
  });
});

describe('a hand-worked budget', () => {
  it('office: board 35, processor 35 through converters, memory 6, drive 3.5', () => {
    const { parts } = machines[0]!;
    const demand = demandOf(parts);
    expect(demand.sustainedWatts).toBeCloseTo(35 + 35 / 0.87 + 6 + 3.5, 9);
    expect(demand.routes).toMatchObject({
      'processor-plug': expect.closeTo(35 / 0.87, 9) as number,
      'drive-plug': 3.5,
      main: 41,
      slot: 0,
    });
    const assessed = assessLoad(demand, supplyNamed('brackholm-300-plain').label);
    expect(assessed.findings.find((finding) => finding.code === 'lasting')).toMatchObject({
      figure: expect.closeTo(35 + 35 / 0.87 + 9.5, 9) as number,
      limit: 300,
      word: 'covered',
    });
  });
});
