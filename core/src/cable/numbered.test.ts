import { describe, expect, it } from 'vitest';
import {
  checkPlan,
  explainOpen,
  planCables,
  socketChoices,
  socketsTake,
  usualRules,
  type CableKit,
  type InletToServe,
  type KitCable,
  type Pin,
} from './index.ts';

const inlet = (id: string, kind: InletToServe['kind'] = 'card-8'): InletToServe => ({
  ...{ id, kind, optional: false, place: 'slots', reachMillimetres: 300, amps12: 8, amps5: 0, amps33: 0 },
});
const card = (id: string, extra: Partial<KitCable> = {}): KitCable => ({
  ...{ id, family: 'card', fixed: false, count: 1, gauge: 18 },
  plugs: [{ kind: 'card-6+2', millimetres: 600 }],
  ...extra,
});
/** Sockets 1 to 3, and cables 2 and 3 of which each goes into its own only; socket 1 takes any. */
const kit: CableKit = {
  sockets: ['1', '2', '3'].map((label) => ({ label, kind: 'card' })),
  cables: [
    { id: 'main', family: 'main', fixed: true, count: 1, gauge: 18, plugs: [{ kind: 'main-24', millimetres: 600 }] },
    card('any', { count: 2 }),
    card('third', { onlySocket: '3' }),
    card('second', { onlySocket: '2' }),
  ],
};
const socketOf = (asked: CableKit, inlets: readonly InletToServe[], pins: readonly Pin[] = []) => {
  const plan = planCables(asked, inlets, { ...usualRules, pins });
  return {
    plan,
    sockets: Object.fromEntries(plan.assignments.map((item) => [item.kitCableId, item.socketLabel])),
    breaches: checkPlan(asked, inlets, plan.assignments, { ...usualRules, pins }),
  };
};
const pin = (inletId: string, kitCableId: string, socketLabel: string | null = null, copy = 0): Pin => ({
  ...{ inletId, kitCableId, copy, plugIndex: 0, socketLabel },
});

describe('cables with a number', () => {
  it('go into their own socket each, and no other cable goes there', () => {
    const three = [inlet('a'), inlet('b'), inlet('c')];
    const { plan, sockets, breaches } = socketOf(kit, three);
    expect(plan.open).toEqual([]);
    expect(sockets).toEqual({ any: '1', second: '2', third: '3' });
    expect(breaches).toEqual([]);
    // A fourth has a cable, but its socket is another one's.
    expect(socketOf(kit, [...three, inlet('d')]).plan.open).toMatchObject([{ reason: 'no-free-plug' }]);
  });
  it('leave their socket empty where they are not used: it stays theirs', () => {
    const short = {
      ...kit,
      cables: kit.cables.map((cable) => (cable.onlySocket === undefined ? cable : tooShort(cable))),
    };
    const { plan } = socketOf(short, [inlet('a'), inlet('b')]);
    expect(plan.assignments.map(({ socketLabel }) => socketLabel)).toEqual(['1']);
    expect(plan.open).toHaveLength(1);
  });
  it('are not multiplied as a remedy: another such piece would go nowhere', () => {
    const only = { ...kit, cables: kit.cables.filter(({ id }) => id !== 'any') };
    const inlets = [inlet('a'), inlet('b'), inlet('c')];
    const plan = planCables(only, inlets);
    const [because] = explainOpen(only, inlets, usualRules, plan);
    expect(because!.remedies.map(({ code }) => code)).toEqual(['other-supply']);
    const [withOthers] = explainOpen(
      kit,
      [...inlets, inlet('d')],
      usualRules,
      planCables(kit, [...inlets, inlet('d')]),
    );
    expect(withOthers!.shortages.map(({ code }) => code)).toContain('sockets');
  });
  it('stay with it when a hand puts their plug, and say where a hand asks for another', () => {
    expect(socketOf(kit, [inlet('a')], [pin('a', 'third')]).sockets).toEqual({ third: '3' });
    const elsewhere = socketOf(kit, [inlet('a')], [pin('a', 'third', '2')]);
    expect(elsewhere.plan.refused.map(({ code }) => code)).toEqual(['socket-kind']);
    expect(elsewhere.sockets).toEqual({ third: '3' });
  });
  it('give way where a hand put another cable into their socket', () => {
    const held = socketOf(kit, [inlet('a'), inlet('b'), inlet('c')], [pin('a', 'any', '3')]);
    expect(held.plan.refused).toEqual([]);
    expect(held.plan.assignments.map(({ socketLabel }) => socketLabel).sort()).toEqual(['1', '2', '3']);
    expect(held.plan.assignments.some(({ kitCableId }) => kitCableId === 'third')).toBe(false);
    const both = socketOf(kit, [inlet('a'), inlet('b')], [pin('a', 'any', '3'), pin('b', 'third')]);
    expect(both.plan.refused.map(({ code, inletId }) => [code, inletId])).toEqual([['socket-twice', 'b']]);
    expect(both.plan.open).toEqual([]);
    expect(both.breaches).toEqual([]);
  });
  it('are told when they are in another socket all the same', () => {
    const { plan } = socketOf(kit, [inlet('a')], [pin('a', 'third')]);
    const moved = plan.assignments.map((item) => ({ ...item, socketLabel: '1' }));
    expect(checkPlan(kit, [inlet('a')], moved, usualRules).map(({ code }) => code)).toEqual(['socket-kind']);
    const third = kit.cables.find(({ id }) => id === 'third')!;
    expect(socketChoices(kit.sockets, third)).toEqual(['3']);
    expect(kit.sockets.filter((socket) => socketsTake([socket], third)).map(({ label }) => label)).toEqual(['3']);
  });
});

const tooShort = (cable: KitCable): KitCable => ({ ...cable, plugs: [{ kind: 'card-6+2', millimetres: 100 }] });
