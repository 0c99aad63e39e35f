import { describe, expect, it } from 'vitest';
import { normal, seeded } from '../simulate/index.ts';
import { autoHold, hasMoved, holdCount, type Held } from './index.ts';

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

/** How often a figure is held anew over these readings, as a watch does that lets go once it has moved. */
function holdsIn(values: readonly number[]): Held[] {
  const holds: Held[] = [];
  let held: Held | null = null;
  for (let end = 1; end <= values.length; end += 1) {
    const seen = values.slice(Math.max(0, end - 40), end);
    if (held !== null && !hasMoved('+12', held, seen)) continue;
    held = autoHold('+12', seen);
    if (held !== null) holds.push(held);
  }
  return holds;
}
const noisy = (volts: number, noise: number, count: number, seed: number) => {
  const random = seeded(seed);
  return Array.from({ length: count }, () => volts + noise * normal(random));
};

describe('leaving a held figure', () => {
  it.each([0.001, 0.005, 0.02, 0.03])('is not done by noise of %f V in five minutes at rest', (noise) => {
    for (const seed of [1, 2, 3]) expect(holdsIn(noisy(12.06, noise, 15_000, seed))).toHaveLength(1);
  });
  it('is done by a probe that was lifted and set down again on the same rail', () => {
    expect(
      holdsIn([...noisy(12.06, 0.01, 60, 1), ...noisy(0, 0.01, 10, 2), ...noisy(12.06, 0.01, 60, 3)]),
    ).toHaveLength(2);
  });
  it.each([
    ['idle to work', 11.92, 0.02],
    ['a light load, on a quiet rail', 12.03, 0.004],
    ['another rail', 5.02, 0.01],
  ])('is done by %s, and the new figure is held', (_what, volts, noise) => {
    const holds = holdsIn([...noisy(12.06, noise, 100, 4), ...noisy(volts, noise, 100, 5)]);
    expect(holds).toHaveLength(2);
    expect(holds[1]!.meanVolts).toBeCloseTo(volts, 1);
  });
  it('is not told without a reading', () => {
    expect(hasMoved('+12', { meanVolts: 12, spreadVolts: 0.01, count: holdCount }, [])).toBe(false);
  });
});
