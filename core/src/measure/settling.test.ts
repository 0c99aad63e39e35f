import { describe, expect, it } from 'vitest';
import { normal, seeded } from '../simulate/index.ts';
import { hasSettled, longestSettlingMilliseconds, type TimedLook } from './index.ts';

/** What a meter shows that was on +12 and is moved to a rail, looked at every `beat` milliseconds. */
const moved = (volts: number, constant: number, beat: number, noise = 0, seed = 5): TimedLook[] => {
  const random = seeded(seed);
  return Array.from({ length: Math.ceil(3000 / beat) }, (_, index) => ({
    milliseconds: index * beat,
    volts: volts + (12 - volts) * Math.exp((-index * beat) / constant) + noise * normal(random),
  }));
};
const settledAt = (looks: readonly TimedLook[], rail: '+5' | '+12' | '+3.3' = '+5') =>
  looks.find((_, index) => hasSettled(rail, looks.slice(0, index + 1)));

describe('a meter that was moved', () => {
  it.each([1, 5, 20, 100])('has settled close to what it touches, looked at every %i ms', (beat) => {
    for (const constant of [2, 10, 30, 60]) {
      const look = settledAt(moved(5.03, constant, beat))!;
      expect(Math.abs(look.volts - 5.03), `time constant ${constant} ms`).toBeLessThan(0.05);
    }
  });
  it('has settled in the end even on a rail that wanders', () => {
    const look = settledAt(moved(5.03, 10, 20, 0.5))!;
    expect(look.milliseconds).toBeLessThanOrEqual(longestSettlingMilliseconds);
  });
  it('has not settled by one look, nor by none', () => {
    expect(hasSettled('+12', [])).toBe(false);
    expect(hasSettled('+12', [{ milliseconds: 0, volts: 12 }])).toBe(false);
  });
  it('settles soon on a steady rail with the noise of a weak supply', () => {
    for (let seed = 1; seed < 60; seed += 1) {
      const looks = moved(11.8, 1, 20, 0.022, seed);
      expect(settledAt(looks, '+12')!.milliseconds, `seed ${seed}`).toBeLessThan(1000);
    }
  });
});
