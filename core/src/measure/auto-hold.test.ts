import { describe, expect, it } from 'vitest';
import { normal, seeded } from '../simulate/index.ts';
import { autoHold, holdCount, sweepLimits, sweepMustStop, sweepSteps } from './index.ts';

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
});

describe('a sweep', () => {
  it('steps evenly, both ends included', () => {
    expect(sweepSteps(2, 20, 4)).toEqual([2, 8, 14, 20]);
    expect(() => sweepSteps(0, 10, 1)).toThrow(RangeError);
    expect(() => sweepSteps(0, 10, 41)).toThrow(RangeError);
  });
  it('ends past the band and by heat, not before', () => {
    const plan = { rail: '+12' as const, amps: [1], dwellSeconds: 1, ...sweepLimits('+12'), hottestCelsius: 80 };
    expect(sweepMustStop(plan, 11.3, 40)).toBeNull();
    expect(sweepMustStop(plan, 10.6, 40)).toBe('rail-low');
    expect(sweepMustStop(plan, 13.4, 40)).toBe('rail-high');
    expect(sweepMustStop(plan, 12, 81)).toBe('too-hot');
    expect(sweepMustStop(plan, 12, null)).toBeNull();
  });
});
