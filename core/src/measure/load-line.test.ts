import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { normal, seeded } from '../simulate/index.ts';
import { combinedHalfWidth, crossLoadOf, fitLoadLine, forecastAt, studentCdf, studentQuantile, type Instrument, type LoadPoint } from './index.ts';

const meter = (percent: number, counts: number, digitVolts: number): Instrument => ({ id: 'm', name: 'M', kind: 'multimeter', ranges: [{ fullScaleVolts: 60, percent, counts, digitVolts }], powerGoodErrorMilliseconds: null, calibratedUntil: null, ownedBy: '' });
const fine = meter(0, 0, 0.000001);
const point = (amps: number, volts: number, instrumentId = 'm'): LoadPoint => ({ amps, volts, instrumentId, estimated: false });

describe('Student\'s distribution', () => {
  it('gives the printed quantiles', () => {
    for (const [degrees, printed] of [[1, 12.7062], [2, 4.3027], [3, 3.1824], [4, 2.7764], [5, 2.5706], [10, 2.2281], [30, 2.0423]] as const) expect(studentQuantile(0.975, degrees)).toBeCloseTo(printed, 3);
    expect(studentQuantile(0.975, Infinity)).toBeCloseTo(1.96, 2);
  });
  it('is symmetric and rises', () => {
    fc.assert(fc.property(fc.double({ min: -20, max: 20, noNaN: true }), fc.integer({ min: 1, max: 40 }), (t, degrees) => {
      expect(studentCdf(t, degrees) + studentCdf(-t, degrees)).toBeCloseTo(1, 9);
      expect(studentCdf(t + 0.1, degrees)).toBeGreaterThanOrEqual(studentCdf(t, degrees) - 1e-12);
    }));
  });
  it('joined with a uniform error becomes either alone at its ends', () => {
    expect(combinedHalfWidth(1, 5, 0)).toBeCloseTo(2.5706, 3);
    expect(combinedHalfWidth(0, 5, 2)).toBeCloseTo(1.9, 6);
    expect(combinedHalfWidth(1e-4, 5, 2)).toBeCloseTo(1.9, 1);
    expect(combinedHalfWidth(1, 5, 1)).toBeGreaterThan(2.5706);
  });
});

describe('the load line', () => {
  it('finds the line that the readings lie on', () => {
    const line = fitLoadLine('+12', [point(2, 11.96), point(10, 11.8), point(20, 11.6), point(30, 11.4)], [fine])!;
    expect(line.openVolts).toBeCloseTo(12, 9);
    expect(line.resistanceOhms).toBeCloseTo(0.02, 9);
    expect(forecastAt(line, 41, '2.x')).toMatchObject({ word: 'will-fail' });
    expect(forecastAt(line, 41, '2.x').volts).toBeCloseTo(11.18, 9);
    expect(forecastAt(line, 25, '2.x').word).toBe('will-pass');
  });
  it('agrees with the closed formula of the slope\'s interval', () => {
    // Worked by hand: x = 1, 2, 3, y = 12, 11.8, 11.7; slope -0.15, residuals 0.01667, -0.03333, 0.01667.
    const line = fitLoadLine('+12', [point(1, 12), point(2, 11.8), point(3, 11.7)], [fine])!;
    expect(line.resistanceOhms).toBeCloseTo(0.15, 9);
    expect(line.scatterVolts).toBeCloseTo(0.0408248, 6);
    expect(line.resistanceInterval!.high - 0.15).toBeCloseTo((12.7062 * 0.0408248) / Math.sqrt(2), 3);
  });
  it('needs two loads that differ, of one instrument', () => {
    expect(fitLoadLine('+12', [point(5, 12), point(5.2, 11.9)], [fine])).toBeNull();
    expect(fitLoadLine('+12', [point(5, 12)], [fine])).toBeNull();
    expect(fitLoadLine('+12', [point(5, 12), point(20, 11.5, 'other')], [fine])).toBeNull();
    expect(fitLoadLine('+12', [], [fine])).toBeNull();
  });
  it('with two readings counts the meter alone, and says nothing of the slope\'s interval', () => {
    const line = fitLoadLine('+12', [point(3, 11.9), point(25, 11.5)], [meter(0.5, 2, 0.01)])!;
    expect(line.resistanceInterval).toBeNull();
    const { interval, volts } = forecastAt(line, 25, '2.x');
    expect(volts - interval.low).toBeGreaterThan(0.07);
    expect(forecastAt(line, 28, '2.x').word).toBe('cannot-tell');
  });
  it('forecasts hold the truth in 93 to 97 of 100 cases', () => {
    const random = seeded(41);
    let held = 0;
    const supplies = 3000;
    for (let supply = 0; supply < supplies; supply += 1) {
      const open = 11.6 + random() * 0.6;
      const resistance = 0.002 + random() * 0.03;
      const noise = 0.002 + random() * 0.03;
      const instrument = meter(random() < 0.5 ? 0.05 : 0.5, 2, 0.001);
      const error = (random() * 2 - 1) * ((12 * instrument.ranges[0]!.percent) / 100 + 0.002);
      const loads = Array.from({ length: 3 + Math.floor(random() * 6) }, (_, index) => 2 + index * (2 + random() * 3));
      const line = fitLoadLine('+12', loads.map((amps) => point(amps, Math.round((open - resistance * amps + noise * normal(random) + error) * 1000) / 1000)), [instrument])!;
      const amps = 10 + random() * 40;
      const truth = open - resistance * amps;
      const { interval } = forecastAt(line, amps, '2.x');
      if (interval.low <= truth && truth <= interval.high) held += 1;
    }
    expect(held / supplies).toBeGreaterThan(0.93);
    expect(held / supplies).toBeLessThan(0.97);
  }, 60_000);
});

describe('cross-load', () => {
  it('is named where +5 rises while +12 sinks, and only there', () => {
    expect(crossLoadOf({ light: 11.9, work: 11.6 }, { light: 5.02, work: 5.11 })).toMatchObject({ twelveFallsVolts: expect.closeTo(0.3, 6), fiveRisesVolts: expect.closeTo(0.09, 6) });
    expect(crossLoadOf({ light: 11.9, work: 11.6 }, { light: 5.02, work: 5.0 })).toBeNull();
    expect(crossLoadOf({ light: 11.9, work: 11.88 }, { light: 5.02, work: 5.11 })).toBeNull();
    expect(crossLoadOf(null, { light: 5, work: 5.1 })).toBeNull();
  });
});
