import { describe, expect, it } from 'vitest';
import { seeded, type Random } from '../simulate/index.ts';
import { partClasses, type MachinePart, type PowerFigures } from '../machine/index.ts';
import { machinePart as part } from '../machine/machine-part.test-help.ts';
import {
  converterEfficiency,
  demandOf,
  inletDraws,
  inletLoads,
  loadRails,
  moments,
  plugProblems,
  routesOf,
} from './index.ts';

const loadAt = (parts: readonly MachinePart[], inletId: string) =>
  inletLoads(parts).find((load) => load.inletId === inletId)!;
const pickOf = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

describe('what comes through which plug', () => {
  it('a card with plugs takes +3.3 and +5 from its slot: its own plugs carry +12 alone', () => {
    const card = part('card-8', 'c', { likelyWatts: 180, share12: 0.9, share33: 0.1 });
    const { amps } = loadAt([part('board', 'b'), card], 'c-0');
    // 162 W on +12, of which the slot gives a quarter.
    expect(amps).toEqual({ '+12': expect.closeTo((162 * 0.75) / 12, 9) as number, '+5': 0, '+3.3': 0 });
    expect(routesOf(card, [card])).toEqual({
      slot: expect.closeTo(162 * 0.25 + 18, 9) as number,
      'card-plug': expect.closeTo(162 * 0.75, 9) as number,
    });
  });
  it('a slot has its limit on +3.3 for a card with plugs as well', () => {
    const card = part('card-8', 'c', { likelyWatts: 120, share12: 0.8, share33: 0.2 });
    expect(plugProblems([card])).toContainEqual(
      expect.objectContaining({ kind: 'slot', rail: '+3.3', figure: expect.closeTo(24 / 3.3, 9) as number, limit: 3 }),
    );
  });
  it('a processor that draws on +5 gets that through the main plug, whatever plug feeds its +12', () => {
    const processor = part('processor-old', 'p');
    const parts = [part('board-4', 'b'), processor];
    expect(loadAt(parts, 'b-1').watts).toBe(0);
    expect(loadAt(parts, 'b-0').amps['+5']).toBeGreaterThan(45 / converterEfficiency / 5);
  });
  it('a 16-pin card takes little from its slot, or what its sheet says; never more than the slot gives', () => {
    const slotOf = (figures: Partial<PowerFigures>) => routesOf(part('card-16', 'c', figures), []).slot;
    expect(slotOf({})).toBe(25);
    expect(slotOf({ slotWatts: 10 })).toBe(10);
    expect(slotOf({ slotWatts: 66 })).toBe(66);
    expect(slotOf({ likelyWatts: 900 })).toBe(66);
  });
  it('what is known of an inlet stays, and the rest is shared by what the others carry', () => {
    const card = part('card-86', 'c');
    const known = { ...card, inlets: [{ ...card.inlets[0]!, watts: 130 }, card.inlets[1]!] };
    const through = (routesOf(known, [known])['card-plug'] ?? 0) - 130;
    expect(loadAt([known], 'c-0').watts).toBeCloseTo(130, 9);
    expect(loadAt([known], 'c-1').watts).toBeCloseTo(through, 9);
    const both = { ...card, inlets: card.inlets.map((inlet) => ({ ...inlet, watts: 50 })) };
    expect(loadAt([both], 'c-0').watts).toBeCloseTo(loadAt([both], 'c-1').watts, 9);
  });
  it("a board's own card plug helps the main connector with what the slots draw", () => {
    const cards = [part('card-slot', 'c1'), part('card-slot', 'c2')];
    const alone = loadAt([part('board', 'b'), ...cards], 'b-0').amps['+12'];
    const helped = [part('board-8-card', 'b'), ...cards];
    expect(loadAt(helped, 'b-0').amps['+12'] + loadAt(helped, 'b-2').amps['+12']).toBeCloseTo(alone, 9);
    expect(loadAt(helped, 'b-2').amps['+12']).toBeGreaterThan(3);
  });
  it('an auxiliary plug takes its contacts of +3.3 and +5, and no +12', () => {
    const parts = [part('board-20-aux', 'b'), part('processor-old', 'p')];
    const [main, auxiliary] = [loadAt(parts, 'b-0').amps, loadAt(parts, 'b-1').amps];
    expect(auxiliary['+12']).toBe(0);
    expect(auxiliary['+5'] / main['+5']).toBeCloseTo(1 / 4, 9);
    expect(auxiliary['+3.3'] / main['+3.3']).toBeCloseTo(2 / 3, 9);
  });
  it('add up, at every moment and on every voltage, to what the machine asks of its supply', () => {
    const random = seeded(31);
    const boards = partClasses.filter((one) => one.group === 'board');
    const others = partClasses.filter((one) => one.group !== 'board');
    for (let run = 0; run < 400; run += 1) {
      const share33 = random() * 0.3;
      const parts = [
        part(pickOf(random, boards).id, 'b'),
        ...Array.from({ length: 1 + Math.floor(random() * 7) }, (_, index) =>
          part(pickOf(random, others).id, `p${index}`),
        ),
        part('card-8', 'mixed', { share12: 1 - share33, share33 }),
      ];
      const draws = inletDraws(parts);
      const { at } = demandOf(parts);
      for (const moment of moments)
        for (const rail of loadRails)
          expect(
            draws.reduce((sum, draw) => sum + draw.at[moment][rail], 0),
            `machine ${run} ${moment} ${rail}: ${parts.map((one) => one.classId).join(' ')}`,
          ).toBeCloseTo(at[moment][rail], 6);
    }
  });
});
