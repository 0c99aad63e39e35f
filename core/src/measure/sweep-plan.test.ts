import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyFrom } from '../even.test-help.ts';
import { calmSweep, sweepLimits, sweepSteps, watchSweep, type SweepLook, type SweepWatch } from './index.ts';

const plan = { rail: '+12' as const, amps: [1], dwellSeconds: 1, ...sweepLimits('+12'), hottestCelsius: 80 };
const watched = (...looks: readonly SweepLook[]) =>
  looks.reduce<SweepWatch[]>((seen, look) => [...seen, watchSweep(seen.at(-1) ?? calmSweep, plan, look)], []);
const at = (volts: number, celsius: number | null = 40): SweepLook => ({ volts, celsius });

describe('a sweep', () => {
  it('steps evenly, both ends included', () => {
    expect(sweepSteps(2, 20, 4)).toEqual([2, 8, 14, 20]);
    expect(() => sweepSteps(0, 10, 1)).toThrow(RangeError);
    expect(() => sweepSteps(0, 10, 41)).toThrow(RangeError);
  });
  it('ends past the band and by heat once the next look says the same, not before', () => {
    expect(watched(at(11.3), at(11.3)).at(-1)).toEqual(calmSweep);
    expect(watched(at(10.6), at(10.6)).map((watch) => watch.stop)).toEqual([null, 'rail-low']);
    expect(watched(at(13.4), at(13.4)).map((watch) => watch.stop)).toEqual([null, 'rail-high']);
    expect(watched(at(12, 81), at(12, 82)).map((watch) => watch.stop)).toEqual([null, 'too-hot']);
    expect(watched(at(12, null), at(12, null)).at(-1)).toEqual(calmSweep);
  });
  it('is not ended by one look alone, nor by two of different kind', () => {
    expect(watched(at(5), at(12), at(5), at(12)).every((watch) => watch.stop === null)).toBe(true);
    expect(watched(at(5), at(14)).every((watch) => watch.stop === null)).toBe(true);
  });
  it('always ends on two bad looks in a row and never otherwise', () => {
    const look = fc.record({ volts: anyFrom(9, 15), celsius: fc.constantFrom(40, 90) });
    fc.assert(
      fc.property(fc.array(look, { maxLength: 30 }), (looks) => {
        const alarms = looks.map(({ volts, celsius }) =>
          volts < plan.lowestVolts ? 'low' : volts > plan.highestVolts ? 'high' : celsius > 80 ? 'hot' : null,
        );
        const twice = alarms.map((alarm, index) => alarm !== null && index > 0 && alarms[index - 1] === alarm);
        expect(watched(...looks).map((watch) => watch.stop !== null)).toEqual(twice);
      }),
      { seed: 11 },
    );
  });
});
