import { describe, expect, it } from 'vitest';
import { planCables, usualRules, type Cabling, type InletRow } from '@fairwatt/core';
import { consequenceOf, plugWays, type PlugQuestion } from './plug-ways.ts';

const plug = (kind: 'card-6+2', millimetres: number) => ({ kind, millimetres });
const card = { family: 'card', fixed: false, gauge: 18 } as const;
const kit: NonNullable<Cabling['kit']> = {
  sockets: [1, 2, 3].map((index) => ({ kind: 'cpu-card', label: `CARD ${index}` })),
  cables: [
    { ...card, id: 'long', count: 3, plugs: [plug('card-6+2', 600)] },
    { ...card, id: 'short', count: 1, plugs: [plug('card-6+2', 200)] },
  ],
};
const inlets = ['A', 'B'].map((id) => ({
  ...({ id, kind: 'card-8', optional: false, place: 'slots', reachMillimetres: 400 } as const),
  ...{ amps12: 3, amps5: 0, amps33: 0 },
}));

function question(): PlugQuestion {
  const plan = planCables(kit, inlets, usualRules);
  const rows = inlets.map(({ id }) => {
    const served = plan.assignments.find(({ inletId }) => inletId === id)!;
    const { kitCableId, copy, plugIndex } = served;
    return { inletId: id, label: `Inlet ${id}`, kitCableId, copy, plugIndex } as InletRow;
  });
  return {
    cabling: { kit, plan, inlets, rows, rules: usualRules } as Partial<Cabling> as Cabling,
    adapters: [],
    inletLabel: (id) => `Inlet ${id}`,
    bagLabel: (id) => id,
  };
}

describe('other plugs for an inlet', () => {
  it('are those of planned cables and one piece of each in the bag, what breaks least first', () => {
    const asked = question();
    const ways = plugWays(asked.cabling.rows[0]!, asked);
    expect(ways.map(({ pin, now, told, opens }) => [pin.kitCableId, now, told.length + opens.length > 0])).toEqual([
      ['long', 'now at Inlet B', false],
      ['long', 'in the bag now', false],
      ['short', 'in the bag now', true],
    ]);
    expect(ways.at(-1)!.told.join()).toContain('Inlet A');
  });
  it('say the same of a pin as a plan that is made with it', () => {
    const asked = question();
    for (const way of plugWays(asked.cabling.rows[0]!, asked)) {
      const { told, opens } = consequenceOf(way.pin, asked);
      expect([way.told, way.opens]).toEqual([told, opens]);
      const then = planCables(kit, inlets, { ...usualRules, pins: [way.pin] });
      expect(opens).toEqual(then.open.map(({ inletId }) => `Inlet ${inletId}`));
    }
  });
  it('are none before there is a plan', () => {
    const asked = question();
    const without = { ...asked, cabling: { ...asked.cabling, plan: null } };
    expect(plugWays(asked.cabling.rows[0]!, without)).toEqual([]);
  });
});
