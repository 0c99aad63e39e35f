import { describe, expect, it } from 'vitest';
import { lossModel, lossWatts } from '../standards/index.ts';
import { paybackYears, runningCost } from './index.ts';

describe('running cost', () => {
  const gold = { grade: 'gold', ratingWatts: 600, correction: 'active', inlet: 'C14' } as const;
  const day = { idleHours: 4, typicalHours: 3, fullHours: 1, typicalShare: 0.25 };
  const tariff = { mainsVolts: 230, minorPerKilowattHour: 30, breakerAmps: 16 };
  it('is the closed sum over the day', () => {
    const cost = runningCost(gold, { idleWatts: 60, fullWatts: 300 }, day, tariff);
    const model = lossModel('gold', 600, 230);
    const input = (watts: number) => watts + lossWatts(model, watts, 600);
    const daily = 4 * input(60) + 3 * input(120) + 1 * input(300);
    expect(cost.kilowattHours).toBeCloseTo((daily * 365) / 1000, 9);
    expect(cost.minorAYear).toBeCloseTo((daily * 365 * 30) / 1000, 6);
    expect(cost.heatWatts).toBeCloseTo(input(120), 9);
  });
  it('gives input amps by efficiency, power factor and the lowest mains, by hand', () => {
    // 300 W at half load of a gold supply: 92 %, so 326.09 W; over 0.95 and 207 V: 1.658 A.
    const cost = runningCost(gold, { idleWatts: 60, fullWatts: 300 }, day, tariff);
    expect(cost.inputAmps).toBeCloseTo(300 / 0.92 / 0.95 / 207, 9);
    expect(cost.breakerShare).toBeCloseTo(cost.inputAmps / 16, 12);
    expect(cost.upsWatts).toBeCloseTo(300 / 0.92, 9);
    expect(cost.upsVoltAmps).toBeCloseTo(300 / 0.92 / 0.95, 9);
    expect(
      runningCost({ ...gold, correction: 'none' }, { idleWatts: 60, fullWatts: 300 }, day, tariff).upsVoltAmps,
    ).toBeCloseTo(300 / 0.92 / 0.6, 9);
  });
  it('pays back by price over yearly saving, never where nothing is saved or currencies differ', () => {
    const at = (minor: number, minorAYear: number, currency = 'EUR') => ({ price: { minor, currency }, minorAYear });
    expect(paybackYears(at(12_000, 4000), at(9000, 5000))).toBe(3);
    expect(paybackYears(at(12_000, 5000), at(9000, 5000))).toBeNull();
    expect(paybackYears(at(9000, 4000), at(12_000, 5000))).toBe(0);
    expect(paybackYears(at(12_000, 4000, 'NOK'), at(9000, 5000))).toBeNull();
  });
});
