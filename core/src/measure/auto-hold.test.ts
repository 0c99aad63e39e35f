import { describe, expect, it } from 'vitest';
import { normal, seeded } from '../simulate/index.ts';
import { autoHold, holdCount } from './index.ts';

const still = (volts: number, noise: number, seed = 3) => {
  const random = seeded(seed);
  return Array.from({ length: holdCount }, () => volts + noise * normal(random));
};

describe('holding a figure', () => {
  it('holds what stands still, and not what moves, hangs in the air or is too short', () => {
    expect(autoHold('+12', still(11.9, 0.01))?.meanVolts).toBeCloseTo(11.9, 1);
    expect(autoHold('+12', still(11.9, 0.2))).toBeNull();
    expect(autoHold('+12', still(0.02, 0.001))).toBeNull();
    expect(autoHold('+12', still(11.9, 0.01).slice(1))).toBeNull();
    expect(autoHold('-12', still(-11.8, 0.01))?.count).toBe(holdCount);
  });
  it('looks at the latest values only', () => {
    expect(autoHold('+5', [...still(0, 0.5), ...still(5.02, 0.002)])).not.toBeNull();
    expect(autoHold('+5', [...still(5.02, 0.002), 3])).toBeNull();
  });
  it('does not hold while a meter settles, however slowly, and then the settled figure', () => {
    for (const constantBeats of [1, 3, 10, 40, 120]) {
      const shown = Array.from({ length: 2000 }, (_, beat) => 5.03 + 7 * Math.exp(-beat / constantBeats));
      const first = shown.findIndex((_, end) => autoHold('+5', shown.slice(0, end)) !== null);
      expect(Math.abs(shown[first - 1]! - 5.03), `time constant of ${constantBeats} beats`).toBeLessThan(0.02);
    }
  });
  it('holds a noisy rail that stands still in nearly every case', () => {
    const held = Array.from({ length: 400 }, (_, seed) => autoHold('+12', still(11.9, 0.02, seed + 1)));
    expect(held.filter((hold) => hold !== null).length).toBeGreaterThan(370);
  });
});
