import { describe, expect, it } from 'vitest';
import { inletFace } from '../standards/index.ts';
import { checkAtPlug, mainInletOf, pinOn20 } from './index.ts';
import { knowledge } from './knowledge.test-help.ts';

const check = (id: string) => knowledge.checks.find((item) => item.id === id)!;
const signals = (kind: 'main-24' | 'main-20') =>
  new Map(inletFace[kind].rows.flat().map(({ pin, signal }) => [pin, signal]));

describe('a check at the main plug', () => {
  it('has its pins moved on a 20-pin plug: the start line is 14, the ground beside it 15', () => {
    const { steps, drawing, ownPlug } = checkAtPlug(check('m-offload'), 'main-20');
    expect(steps.join(' ')).toContain('pin 14 (start) to pin 15 (ground)');
    expect(steps.join(' ')).not.toMatch(/pin 1[67]/);
    expect(drawing).toBe('main-20:14,15');
    expect(ownPlug).toBe(false);
    expect(checkAtPlug(check('m-standby'), 'main-20').drawing).toBe('main-20:9');
    expect(checkAtPlug(check('m-rails-work'), 'main-20').drawing).toBe('main-20:10');
    expect(checkAtPlug(check('do-main'), 'main-20').drawing).toBe('main-20');
  });
  it('names no pin of a plug that is a maker’s own', () => {
    const { steps, drawing, ownPlug } = checkAtPlug(check('m-offload'), 'main-own');
    expect(steps.join(' ')).not.toMatch(/pin \d/);
    expect(steps.join(' ')).toContain("maker's sheet");
    expect(drawing).toBeUndefined();
    expect(ownPlug).toBe(true);
  });
  it('stays as it is on 24 pins, where nobody entered the board, and away from the main plug', () => {
    for (const main of ['main-24', null] as const)
      expect(checkAtPlug(check('m-offload'), main)).toMatchObject({ drawing: 'main-24:16,17' });
    for (const main of ['main-20', 'main-own'] as const)
      expect(checkAtPlug(check('do-pin3'), main)).toMatchObject({ drawing: 'sata:3', steps: check('do-pin3').steps });
  });
  it('carries the same on every pin that both plugs have, and holds for the whole shipped knowledge', () => {
    const [on24, on20] = [signals('main-24'), signals('main-20')];
    for (const [pin, signal] of on24) {
      const there = pinOn20(pin);
      if (there !== null) expect(on20.get(there)).toBe(signal);
    }
    expect([...on24.keys()].filter((pin) => pinOn20(pin) === null)).toEqual(expect.arrayContaining([11, 12, 23, 24]));
    for (const item of knowledge.checks) expect(() => checkAtPlug(item, 'main-20')).not.toThrow();
  });
  it('finds the main inlet among the parts', () => {
    expect(mainInletOf([{ inlets: [{ kind: 'sata' }] }, { inlets: [{ kind: 'cpu-4' }, { kind: 'main-20' }] }])).toBe(
      'main-20',
    );
    expect(mainInletOf([])).toBeNull();
  });
});
