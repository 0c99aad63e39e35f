import { describe, expect, it } from 'vitest';
import { conductorAmps, limits, type InletKind, type PlugKind } from '../standards/index.ts';
import { breachConcerns, carriesOpposite, checkPlan, type PlanBreach } from './check.ts';
import type { Adapter, CableKit, InletToServe, KitCable } from './kit.ts';
import { usualRules, type Assignment, type PlanRules } from './plan.ts';

const inlet = (id: string, kind: InletKind, more: Partial<InletToServe> = {}): InletToServe => ({
  id,
  kind,
  optional: false,
  place: 'slots',
  reachMillimetres: 400,
  amps12: 1,
  amps5: 0,
  amps33: 0,
  ...more,
});
const cable = (id: string, family: KitCable['family'], more: Partial<KitCable> = {}): KitCable => ({
  id,
  family,
  fixed: true,
  count: 1,
  gauge: 18,
  plugs: [],
  ...more,
});
const kit: CableKit = {
  sockets: [
    { label: 'MAIN 1', kind: 'main' },
    { label: 'MAIN 2', kind: 'main' },
    { label: 'CARD 1', kind: 'card' },
    { label: 'CARD 2', kind: 'card' },
    { label: 'DRIVE 1', kind: 'drive' },
  ],
  cables: [
    cable('main', 'main', {
      plugs: [
        { kind: 'main-20+4', millimetres: 600 },
        { kind: 'main-20+4', millimetres: 800 },
      ],
    }),
    cable('cpu', 'cpu', {
      plugs: [
        { kind: 'cpu-4+4', millimetres: 600 },
        { kind: 'cpu-8', millimetres: 900 },
      ],
    }),
    cable('card', 'card', {
      fixed: false,
      plugs: [
        { kind: 'card-6+2', millimetres: 500 },
        { kind: 'card-6+2', millimetres: 650 },
      ],
    }),
    cable('sixteen', 'card-16', {
      fixed: false,
      twoEnded: true,
      plugs: [
        { kind: 'card-16', millimetres: 600 },
        { kind: 'card-16', millimetres: 900 },
      ],
    }),
    cable('drive', 'drive', {
      plugs: [
        { kind: 'sata', millimetres: 450 },
        { kind: 'sata', millimetres: 600 },
        { kind: 'peripheral-4', millimetres: 750 },
      ],
    }),
    cable('thin', 'drive', { gauge: 20, plugs: [{ kind: 'sata', millimetres: 450 }] }),
  ],
};
const adapter = (id: string, more: Partial<Adapter> = {}): Adapter => ({
  id,
  takes: 'card-8',
  gives: 'card-8',
  legs: 1,
  moulded: false,
  addsMillimetres: 300,
  watts: null,
  count: 1,
  ...more,
});
const put = (inletId: string, kitCableId: string, plugIndex: number, more: Partial<Assignment> = {}): Assignment => ({
  inletId,
  cableCode: kitCableId.toUpperCase(),
  kitCableId,
  copy: 0,
  socketLabel: null,
  plugIndex,
  plugKind: kit.cables.find(({ id }) => id === kitCableId)!.plugs[plugIndex]!.kind,
  adapterId: null,
  slackMillimetres: 50,
  pinned: true,
  ...more,
});
const rulesWith = (adapters: readonly Adapter[], more: Partial<PlanRules> = {}): PlanRules => ({
  ...usualRules,
  adapters,
  ...more,
});
const check = (inlets: readonly InletToServe[], assignments: readonly Assignment[], rules: PlanRules = usualRules) =>
  checkPlan(kit, inlets, assignments, rules);
const card = (id: string, amps12: number, more: Partial<InletToServe> = {}) => inlet(id, 'card-8', { amps12, ...more });

describe('an arrangement that is right', () => {
  it('breaks nothing, whatever its cables are', () => {
    const inlets = [
      inlet('board', 'main-24', { amps12: 4, amps5: 4, amps33: 3 }),
      inlet('processor', 'cpu-8', { amps12: 20 }),
      card('one', 9),
      card('two', 9),
      inlet('disk', 'sata', { place: 'drive-cage', amps12: 2, amps5: 1 }),
      inlet('pump', 'sata', { cools: true }),
    ];
    const placed = [
      put('board', 'main', 0),
      put('processor', 'cpu', 0),
      put('one', 'card', 0, { socketLabel: 'CARD 1' }),
      put('two', 'card', 1, { socketLabel: 'CARD 1' }),
      put('disk', 'drive', 0),
      put('pump', 'drive', 1),
    ];
    expect(check(inlets, placed)).toEqual([]);
    expect(check([], [])).toEqual([]);
  });
});

describe('what a plug is put into', () => {
  it('is an inlet that it fits, or an adapter that it fits, whose own plug fits', () => {
    expect(check([card('one', 5)], [put('one', 'cpu', 1)])).toEqual([
      { code: 'no-fit', inletId: 'one', plugKind: 'cpu-8' },
    ]);
    const down = adapter('down', { takes: 'peripheral-4', gives: 'sata', addsMillimetres: 0 });
    const with_ = (inletId: string, plugIndex: number) => put(inletId, 'drive', plugIndex, { adapterId: 'down' });
    const disk = inlet('disk', 'sata');
    expect(check([disk], [with_('disk', 2)], rulesWith([down]))).toEqual([]);
    // A plug that the adapter does not take, and an inlet that does not take the adapter's.
    expect(check([disk], [with_('disk', 0)], rulesWith([down]))).toMatchObject([{ code: 'no-fit', plugKind: 'sata' }]);
    expect(check([inlet('old', 'peripheral-4')], [with_('old', 2)], rulesWith([down]))).toMatchObject([
      { code: 'no-fit', plugKind: 'peripheral-4' },
    ]);
  });
  it('asks of an adapter no more than it carries', () => {
    const weak = adapter('weak', { watts: 60 });
    const on = (amps12: number) =>
      check([card('one', amps12)], [put('one', 'card', 0, { adapterId: 'weak' })], rulesWith([weak]));
    expect(on(5)).not.toContainEqual(expect.objectContaining({ code: 'adapter-overload' }));
    expect(on(5.01)).toContainEqual({ code: 'adapter-overload', inletId: 'one', adapterId: 'weak' });
  });
  it('is no further away than the cable reaches', () => {
    const short = (slackMillimetres: number) =>
      check([card('one', 5)], [put('one', 'card', 0, { socketLabel: 'CARD 1', slackMillimetres })]);
    expect(short(0)).toEqual([]);
    expect(short(-30)).toEqual([{ code: 'too-short', inletId: 'one', missingMillimetres: 30 }]);
  });
  it('is no pump on thin wire', () => {
    expect(check([inlet('pump', 'sata', { cools: true })], [put('pump', 'thin', 0)])).toEqual([
      { code: 'weak-chain', inletId: 'pump', gauge: 20 },
    ]);
    expect(check([inlet('disk', 'sata')], [put('disk', 'thin', 0)])).toEqual([]);
  });
});

describe('one plug', () => {
  it('goes into one inlet', () => {
    const two = [inlet('a', 'sata', { place: 'drive-cage' }), inlet('b', 'sata', { place: 'drive-cage' })];
    expect(check(two, [put('a', 'drive', 0), put('b', 'drive', 0)])).toContainEqual({
      code: 'plug-twice',
      cableCode: 'DRIVE',
      plugIndex: 0,
    });
    // The same plug of another piece is another plug.
    expect(check(two, [put('a', 'drive', 0), put('b', 'drive', 0, { cableCode: 'DRIVE-2', copy: 1 })])).toEqual([]);
  });
  it('that comes apart goes into two 4-pin inlets, and into nothing else twice', () => {
    const small = (id: string) => inlet(id, 'cpu-4', { amps12: 6 });
    const large = (id: string) => inlet(id, 'cpu-8', { amps12: 6 });
    const codes = (inlets: readonly InletToServe[], plugIndex: number) =>
      check(
        inlets,
        inlets.map(({ id }) => put(id, 'cpu', plugIndex)),
      ).filter(({ code }) => code === 'plug-twice').length;
    expect(codes([small('a'), small('b')], 0)).toBe(0);
    expect(codes([small('a'), large('b')], 0)).toBe(1);
    expect(codes([large('a'), small('b')], 0)).toBe(1);
    expect(codes([large('a'), large('b')], 0)).toBe(1);
    // Three halves there are not, and a plug in one piece has none.
    expect(codes([small('a'), small('b'), small('c')], 0)).toBe(1);
    expect(codes([small('a'), small('b')], 1)).toBe(1);
  });
});

describe('a socket', () => {
  const cards = [card('one', 5), card('two', 5)];
  const at = (socketLabel: string, more: Partial<Assignment> = {}) => put('one', 'card', 0, { socketLabel, ...more });
  it('takes cables of its kind only, and is one of the supply’s', () => {
    expect(check(cards, [at('CARD 1')])).toEqual([]);
    for (const label of ['MAIN 1', 'CARD 3'])
      expect(check(cards, [at(label)])).toEqual([{ code: 'socket-kind', socketLabel: label, cableCode: 'CARD' }]);
  });
  it('takes one cable', () => {
    const second = put('two', 'card', 0, { socketLabel: 'CARD 1', cableCode: 'CARD-2', copy: 1 });
    expect(check(cards, [at('CARD 1'), second])).toEqual([{ code: 'socket-twice', socketLabel: 'CARD 1' }]);
    expect(check(cards, [at('CARD 1'), { ...second, socketLabel: 'CARD 2' }])).toEqual([]);
    // One that the supply has not got can be named twice as well.
    expect(check(cards, [at('CARD 9'), { ...second, socketLabel: 'CARD 9' }])).toContainEqual({
      code: 'socket-twice',
      socketLabel: 'CARD 9',
    });
  });
  it('counts for each end of a cable that has two', () => {
    const inlets = [inlet('big', 'card-16', { amps12: 20 }), card('one', 5)];
    const big = put('big', 'sixteen', 0, { socketLabel: 'CARD 1 + CARD 2' });
    expect(check(inlets, [big])).toEqual([]);
    expect(check(inlets, [big, put('one', 'card', 0, { socketLabel: 'CARD 2' })])).toEqual([
      { code: 'socket-twice', socketLabel: 'CARD 2' },
    ]);
    expect(check(inlets, [{ ...big, socketLabel: 'CARD 1' }])).toMatchObject([{ code: 'socket-kind' }]);
  });
});

describe('a cable', () => {
  it('carries on each voltage what its wires allow, to the hair', () => {
    const most = Math.min(limits.driveChainAmps, conductorAmps[18]);
    for (const [key, rail] of [
      ['amps12', '+12'],
      ['amps5', '+5'],
      ['amps33', '+3.3'],
    ] as const) {
      const loaded = (amps: number) => check([inlet('a', 'sata', { amps12: 0, [key]: amps })], [put('a', 'drive', 0)]);
      expect(loaded(most)).toEqual([]);
      expect(loaded(most + 0.001)).toEqual([
        { code: 'chain-overload', cableCode: 'DRIVE', rail, amps: most + 0.001, limitAmps: most },
      ]);
    }
  });
  it('that is no chain is told apart from one', () => {
    const wires = 3 * conductorAmps[18];
    const loaded = (amps12: number) => check([card('one', amps12)], [put('one', 'card', 0, { socketLabel: 'CARD 1' })]);
    expect(loaded(wires)).toEqual([]);
    expect(loaded(wires + 1)).toEqual([
      { code: 'cable-overload', cableCode: 'CARD', rail: '+12', amps: wires + 1, limitAmps: wires },
    ]);
  });
  it('carries a share of what hangs on an adapter of several cables, on every voltage', () => {
    const joined = adapter('joined', { takes: 'card-8', gives: 'card-16', legs: 2 });
    const most = 3 * conductorAmps[18];
    const big = (more: Partial<InletToServe>) => {
      const legs = [0, 1].map((leg) =>
        put('big', 'card', 0, {
          adapterId: 'joined',
          cableCode: `CARD-${leg}`,
          copy: leg,
          socketLabel: `CARD ${leg + 1}`,
        }),
      );
      return check([inlet('big', 'card-16', more)], legs, rulesWith([joined])).filter(
        ({ code }) => code === 'cable-overload',
      );
    };
    expect(big({ amps12: 2 * most })).toEqual([]);
    expect(big({ amps12: 2 * most + 1 })).toHaveLength(2);
    expect(big({ amps5: 2 })).toMatchObject([
      { rail: '+5', amps: 1 },
      { rail: '+5', amps: 1 },
    ]);
    expect(big({ amps33: 3 })).toMatchObject([
      { rail: '+3.3', amps: 1.5 },
      { rail: '+3.3', amps: 1.5 },
    ]);
  });
});

describe('two inlets on one cable', () => {
  const pair = (first: number, second: number, rules: PlanRules = usualRules) =>
    check(
      [card('one', first), card('two', second)],
      [put('one', 'card', 0, { socketLabel: 'CARD 1' }), put('two', 'card', 1, { socketLabel: 'CARD 1' })],
      rules,
    );
  it('are allowed to cards where the shop allows it, up to what such a cable may give', () => {
    const half = limits.sharedCardCableWatts / 12 / 2;
    expect(pair(half, half)).toEqual([]);
    const [breach, ...more] = pair(half, half + 0.01);
    expect(more).toEqual([]);
    expect(breach).toMatchObject({
      code: 'shared-overload',
      cableCode: 'CARD',
      limitWatts: limits.sharedCardCableWatts,
    });
    expect((breach as Extract<PlanBreach, { code: 'shared-overload' }>).watts).toBeCloseTo(
      limits.sharedCardCableWatts + 0.12,
      9,
    );
    const strict = rulesWith([], { allowShared: false });
    expect(pair(2, 2, strict)).toEqual([{ code: 'shared-not-allowed', cableCode: 'CARD' }]);
    expect(pair(half, half + 1, strict)).toEqual([{ code: 'shared-not-allowed', cableCode: 'CARD' }]);
  });
  it('count on a 16-pin cable as well, and never on a main one', () => {
    const sixteens = (amps12: number) =>
      check(
        [inlet('one', 'card-16', { amps12 }), inlet('two', 'card-16', { amps12 })],
        ['one', 'two'].map((id, index) => put(id, 'sixteen', index, { socketLabel: 'CARD 1 + CARD 2' })),
      ).map(({ code }) => code);
    expect(sixteens(limits.sharedCardCableWatts / 24)).toEqual([]);
    expect(sixteens(limits.sharedCardCableWatts / 24 + 1)).toEqual(['shared-overload']);
    expect(
      check([inlet('one', 'main-24'), inlet('two', 'main-24')], [put('one', 'main', 0), put('two', 'main', 1)]),
    ).toEqual([{ code: 'shared-not-allowed', cableCode: 'MAIN' }]);
    // Drives, and processors, may.
    expect(check([inlet('a', 'cpu-8'), inlet('b', 'cpu-8')], [put('a', 'cpu', 0), put('b', 'cpu', 1)])).toEqual([]);
  });
  it('are none of an adapter that wants cables of its own', () => {
    const rules = rulesWith([
      adapter('joined', { gives: 'card-16', legs: 2, addsMillimetres: 0 }),
      adapter('longer', { legs: 1, addsMillimetres: 0 }),
    ]);
    const shared = (adapterId: string, kind: InletKind) =>
      check(
        [inlet('big', kind, { amps12: 4 }), card('two', 4)],
        [put('big', 'card', 0, { socketLabel: 'CARD 1', adapterId }), put('two', 'card', 1, { socketLabel: 'CARD 1' })],
        rules,
      );
    expect(shared('joined', 'card-16')).toContainEqual({ code: 'shared-not-allowed', cableCode: 'CARD' });
    expect(shared('longer', 'card-8')).toEqual([]);
  });
  it('are no further apart than their plugs, adapters counted', () => {
    const apart = (reach: number, adapters: readonly (string | null)[] = [null, null], plugs = [0, 1]) =>
      check(
        [card('one', 4), card('two', 4, { reachMillimetres: 400 + reach })],
        ['one', 'two'].map((id, index) =>
          put(id, 'card', plugs[index]!, { socketLabel: 'CARD 1', adapterId: adapters[index]! }),
        ),
        rulesWith([adapter('longer'), adapter('longest', { addsMillimetres: 500 })]),
      );
    // 150 mm of cable lie between the two plugs.
    expect(apart(150)).toEqual([]);
    expect(apart(151)).toEqual([
      { code: 'spacing', inletId: 'two', otherInletId: 'one', hasMillimetres: 150, needsMillimetres: 151 },
    ]);
    expect(apart(151, [null, null], [1, 0])).toMatchObject([{ code: 'spacing', hasMillimetres: 150 }]);
    expect(apart(450, ['longer', null])).toEqual([]);
    expect(apart(451, ['longer', null])).toMatchObject([{ code: 'spacing', hasMillimetres: 450 }]);
    expect(apart(950, ['longer', 'longest'])).toEqual([]);
    expect(apart(951, ['longer', 'longest'])).toMatchObject([{ code: 'spacing', hasMillimetres: 950 }]);
  });
  it('are looked at in every pair', () => {
    const far = ['a', 'b', 'c'].map((id, index) =>
      inlet(id, index === 2 ? 'peripheral-4' : 'sata', { reachMillimetres: 400 + 400 * index }),
    );
    const found = check(
      far,
      far.map(({ id }, index) => put(id, 'drive', index)),
    );
    expect(found.map((breach) => (breach.code === 'spacing' ? `${breach.otherInletId}${breach.inletId}` : ''))).toEqual(
      ['ab', 'ac', 'bc'],
    );
  });
});

describe('a breach', () => {
  const on = (breach: PlanBreach) =>
    (
      [
        ['one', 'CARD'],
        ['two', 'MAIN'],
        ['three', null],
      ] as const
    ).map(([inletId, cableCode]) => breachConcerns(breach, inletId, cableCode));
  it('concerns its inlet, both of them, or all that hang on its cable', () => {
    const ofInlet: PlanBreach[] = [
      { code: 'no-fit', inletId: 'one', plugKind: 'sata' },
      { code: 'too-short', inletId: 'one', missingMillimetres: 1 },
      { code: 'weak-chain', inletId: 'one', gauge: 20 },
      { code: 'adapter-overload', inletId: 'one', adapterId: 'x' },
    ];
    for (const breach of ofInlet) expect([breach.code, on(breach)]).toEqual([breach.code, [true, false, false]]);
    const spacing = { code: 'spacing', hasMillimetres: 1, needsMillimetres: 2 } as const;
    expect(on({ ...spacing, inletId: 'one', otherInletId: 'two' })).toEqual([true, true, false]);
    expect(on({ ...spacing, inletId: 'three', otherInletId: 'one' })).toEqual([true, false, true]);
    const cableCode = 'CARD';
    const figures = { cableCode, rail: '+12', amps: 2, limitAmps: 1 } as const;
    const ofCable: PlanBreach[] = [
      { code: 'shared-not-allowed', cableCode },
      { code: 'shared-overload', cableCode, watts: 2, limitWatts: 1 },
      { code: 'chain-overload', ...figures },
      { code: 'cable-overload', ...figures },
      { code: 'plug-twice', cableCode, plugIndex: 0 },
      { code: 'socket-kind', cableCode, socketLabel: 'X' },
    ];
    for (const breach of ofCable) expect([breach.code, on(breach)]).toEqual([breach.code, [true, false, false]]);
    expect(on({ code: 'socket-twice', socketLabel: 'CARD' })).toEqual([false, false, false]);
  });
});

describe('+12 where ground belongs', () => {
  it('is carried by a processor plug into a card, and by a card plug into a processor, and by nothing else', () => {
    const plugs: readonly PlugKind[] = ['cpu-8', 'cpu-4+4', 'cpu-4', 'card-6+2', 'card-8', 'card-6', 'main-24', 'sata'];
    const inlets: readonly InletKind[] = ['cpu-8', 'cpu-4', 'card-8', 'card-6', 'card-16', 'main-24', 'sata'];
    const crossed = plugs.flatMap((plug) =>
      inlets.filter((kind) => carriesOpposite(plug, kind)).map((kind) => `${plug} ${kind}`),
    );
    expect(crossed).toEqual([
      ...['cpu-8', 'cpu-4+4', 'cpu-4'].flatMap((plug) => [`${plug} card-8`, `${plug} card-6`]),
      ...['card-6+2', 'card-8', 'card-6'].flatMap((plug) => [`${plug} cpu-8`, `${plug} cpu-4`]),
    ]);
  });
});
