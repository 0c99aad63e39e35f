import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyFrom } from '../even.test-help.ts';
import { drawRail, normal, railWorlds, scoreForecasts, seeded } from '../simulate/index.ts';
import {
  combinedHalfWidth,
  crossLoadOf,
  fitLoadLine,
  forecastAt,
  studentCdf,
  studentQuantile,
  voltsAt,
  type Instrument,
  type LoadPoint,
} from './index.ts';

const meter = (percent: number, counts: number, digitVolts: number): Instrument => ({
  id: 'm',
  name: 'M',
  kind: 'multimeter',
  ranges: [{ fullScaleVolts: 60, percent, counts, digitVolts }],
  powerGoodErrorMilliseconds: null,
  rippleErrorMillivolts: null,
  calibratedUntil: null,
  ownedBy: '',
});
const fine = meter(0, 0, 0.000001);
const point = (amps: number, volts: number, instrumentId = 'm'): LoadPoint => ({
  amps,
  volts,
  instrumentId,
  estimated: false,
});

describe("Student's distribution", () => {
  it('gives the printed quantiles', () => {
    for (const [degrees, printed] of [
      [1, 12.7062],
      [2, 4.3027],
      [3, 3.1824],
      [4, 2.7764],
      [5, 2.5706],
      [10, 2.2281],
      [30, 2.0423],
    ] as const)
      expect(studentQuantile(0.975, degrees)).toBeCloseTo(printed, 3);
    expect(studentQuantile(0.975, Infinity)).toBeCloseTo(1.96, 2);
  });
  it('is symmetric and rises', () => {
    fc.assert(
      fc.property(anyFrom(-20, 20), fc.integer({ min: 1, max: 40 }), (t, degrees) => {
        expect(studentCdf(t, degrees) + studentCdf(-t, degrees)).toBeCloseTo(1, 9);
        expect(studentCdf(t + 0.1, degrees)).toBeGreaterThanOrEqual(studentCdf(t, degrees) - 1e-12);
      }),
    );
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
    const line = fitLoadLine(
      '+12',
      [point(2, 11.96), point(10, 11.8), point(20, 11.6), point(30, 11.4)],
      [fine],
      '2.x',
    )!;
    expect(line.openVolts).toBeCloseTo(12, 9);
    expect(line.resistanceOhms).toBeCloseTo(0.02, 9);
    expect(forecastAt(line, 41, '2.x')).toMatchObject({ word: 'will-fail' });
    expect(forecastAt(line, 41, '2.x').volts).toBeCloseTo(11.18, 9);
    expect(forecastAt(line, 25, '2.x').word).toBe('will-pass');
  });
  it("agrees with the closed formula of the slope's interval", () => {
    // Worked by hand: x = 1, 2, 3, y = 12, 11.8, 11.7; slope -0.15, residuals 0.01667, -0.03333, 0.01667.
    const line = fitLoadLine('+12', [point(1, 12), point(2, 11.8), point(3, 11.7)], [fine], '2.x')!;
    expect(line.resistanceOhms).toBeCloseTo(0.15, 9);
    expect(line.scatterVolts).toBeCloseTo(0.0408248, 6);
    // One degree of freedom of its own and four taken for granted at 20.4 mV; Student's t with five is 2.5706.
    const scatter = Math.sqrt((4 * 0.0204 ** 2 + 0.0408248 ** 2) / 5);
    expect(line.resistanceInterval!.high - 0.15).toBeCloseTo((2.5706 * scatter) / Math.sqrt(2), 4);
  });
  it('needs two loads that differ, of one instrument', () => {
    expect(fitLoadLine('+12', [point(5, 12), point(5.2, 11.9)], [fine], '2.x')).toBeNull();
    expect(fitLoadLine('+12', [point(5, 12)], [fine], '2.x')).toBeNull();
    expect(fitLoadLine('+12', [point(5, 12), point(20, 11.5, 'other')], [fine], '2.x')).toBeNull();
    expect(fitLoadLine('+12', [], [fine], '2.x')).toBeNull();
  });
  it("with two readings takes a scatter for granted, and says nothing of the slope's interval", () => {
    const line = fitLoadLine('+12', [point(3, 11.9), point(25, 11.5)], [meter(0.5, 2, 0.01)], '2.x')!;
    expect(line.resistanceInterval).toBeNull();
    const { interval, volts } = forecastAt(line, 25, '2.x');
    expect(volts - interval.low).toBeGreaterThan(0.07);
    expect(forecastAt(line, 28, '2.x').word).toBe('cannot-tell');
  });
  it('is less sure where currents are estimated, the more the farther the load', () => {
    const at = (amps: number, estimated: boolean) => {
      const line = fitLoadLine(
        '+12',
        [point(5, 12.0), point(18, 11.7), point(19, 11.68)].map((item, index) => ({
          ...item,
          estimated: estimated && index === 0,
        })),
        [fine],
        '2.x',
      )!;
      const { interval } = forecastAt(line, amps, '2.x');
      return {
        width: interval.high - interval.low,
        slope: line.resistanceInterval!.high - line.resistanceInterval!.low,
      };
    };
    // Five readings: their own scatter is known well enough for the current to show.
    const of = (amps: number, estimated: boolean) => {
      const line = fitLoadLine(
        '+12',
        [5, 8, 12, 15, 18].map((drawn) => ({
          ...point(drawn, 12.1 - 0.023 * drawn + (drawn % 2 === 0 ? 0.004 : -0.004)),
          estimated,
        })),
        [fine],
        '2.x',
      )!;
      const { interval } = forecastAt(line, amps, '2.x');
      return interval.high - interval.low;
    };
    expect(at(50, true).width).toBeGreaterThanOrEqual(at(50, false).width);
    expect(at(50, true).slope).toBeGreaterThanOrEqual(at(50, false).slope);
    expect(of(50, true) / of(50, false)).toBeGreaterThan(1.5);
    expect(at(50, true).width / at(20, true).width).toBeGreaterThan(2);
  });
  it('with two readings, one at an estimated current, agrees with the closed formula', () => {
    // x = 5 (estimated), 18; at 50 the weights are -32/13 and 45/13; slope -0.3/13.
    const line = fitLoadLine('+12', [{ ...point(5, 12.0), estimated: true }, point(18, 11.7)], [fine], '2.x')!;
    const { interval, volts } = forecastAt(line, 50, '2.x');
    // Scatter 20.4 mV with 4 degrees; the estimated current and the 2 % that measured ones share are normal: Welch and
    // Satterthwaite join them. Beyond 18 A the resistance may be half as high again.
    const scatter = 0.0204 * Math.hypot(32 / 13, 45 / 13);
    const further = Math.hypot((32 / 13) * (0.3 / 13) * 0.15 * 5, 0.02 * (0.3 / 13) * 50);
    const joined = Math.hypot(scatter, further);
    const degrees = Math.floor(4 * (joined / scatter) ** 4);
    const mayFall = 0.5 * (0.3 / 13) * 32;
    expect(volts - interval.low).toBeCloseTo(studentQuantile(0.975, degrees) * joined + mayFall, 4);
    expect(interval.high - volts).toBeCloseTo(studentQuantile(0.975, degrees) * joined, 4);
  });
  it.each([2, 3, 6])('with %d readings at estimated currents the truth is held at least 93 times in 100', (count) => {
    const random = seeded(43);
    let held = 0;
    const supplies = 1500;
    for (let supply = 0; supply < supplies; supply += 1) {
      const open = 11.8 + random() * 0.4;
      const resistance = 0.004 + random() * 0.025;
      const drawn = Array.from({ length: count }, (_, index) => 4 + (index * 20) / (count - 1));
      const points = drawn.map((amps) => ({
        ...point(amps * (1 + 0.13 * normal(random)), open - resistance * amps + 0.01 * normal(random)),
        estimated: true,
      }));
      const line = fitLoadLine('+12', points, [fine], '2.x');
      if (line === null) {
        held += 1;
        continue;
      }
      const amps = 15 + random() * 30;
      const { interval } = forecastAt(line, amps, '2.x');
      if (interval.low <= open - resistance * amps && open - resistance * amps <= interval.high) held += 1;
    }
    expect(held / supplies).toBeGreaterThan(0.93);
  });
  it(
    'forecasts hold the truth in 93 to 97 of 100 cases over rails that are straight, curved, ' +
      'drifting or read by a clamp that is off',
    () => {
      const random = seeded(41);
      const worlds = railWorlds.filter((world) => world !== 'folds-back');
      const score = scoreForecasts(
        worlds.flatMap((world) => Array.from({ length: 1000 }, () => drawRail(world, random))),
      );
      expect(score.held / score.asked).toBeGreaterThan(0.93);
      expect(score.held / score.asked).toBeLessThan(0.97);
      expect(score.falsePasses / score.passes).toBeLessThan(0.025);
    },
  );
  it('with two readings at 30 mV of noise at least 93 in 100', () => {
    const random = seeded(42);
    const score = scoreForecasts(
      Array.from({ length: 1500 }, () => drawRail('straight', random, { noiseVolts: 0.03, readings: 2 })),
    );
    expect(score.held / score.asked).toBeGreaterThan(0.93);
  });
  it('never says "will pass" of a load beyond those read, where the supply may fold back', () => {
    const random = seeded(44);
    const score = scoreForecasts(Array.from({ length: 600 }, () => drawRail('folds-back', random)));
    expect(score.passes).toBeGreaterThan(100);
    expect(score.falsePasses / score.passes).toBeLessThan(0.025);
    const line = fitLoadLine('+12', [point(2, 12), point(10, 11.96), point(20, 11.91)], [fine], '2.x')!;
    expect(forecastAt(line, 20, '2.x')).toMatchObject({ word: 'will-pass', beyondAmps: null, nextAmps: null });
    expect(forecastAt(line, 25, '2.x')).toMatchObject({ word: 'cannot-tell', beyondAmps: 20, nextAmps: 25 });
    expect(forecastAt(line, 45, '2.x')).toMatchObject({ word: 'cannot-tell', nextAmps: 30 });
  });
  it('sees a rail that bends, goes along with it, and says nothing beyond', () => {
    const bent = [2, 8, 14, 20, 26].map((amps) => point(amps, 12.1 - 0.004 * amps - 0.0006 * amps ** 2));
    const line = fitLoadLine('+12', bent, [fine], '2.x')!;
    expect(line.bend).not.toBeNull();
    expect(voltsAt(line, 23)).toBeCloseTo(12.1 - 0.004 * 23 - 0.0006 * 23 ** 2, 6);
    expect(forecastAt(line, 26.5, '2.x')).toMatchObject({ word: 'cannot-tell', bends: true });
    expect(forecastAt(line, 40, '2.x').word).toBe('will-fail');
    expect(
      fitLoadLine(
        '+12',
        [2, 8, 14, 20, 26].map((amps) => point(amps, 12.1 - 0.02 * amps)),
        [fine],
        '2.x',
      )!.bend,
    ).toBeNull();
  });
  it('is never narrower with two of three readings than with all, on the same line', () => {
    fc.assert(
      fc.property(
        anyFrom(11.6, 12.4),
        anyFrom(0, 0.03),
        anyFrom(5, 20),
        anyFrom(1, 50),
        (open, ohms, middle, asked) => {
          const at = (amps: number) => point(amps, open - ohms * amps);
          const width = (points: readonly LoadPoint[]) => {
            const { interval } = forecastAt(fitLoadLine('+12', points, [fine], '2.x')!, asked, '2.x');
            return interval.high - interval.low;
          };
          expect(width([at(2), at(25)])).toBeGreaterThanOrEqual(width([at(2), at(middle), at(25)]) - 1e-9);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('cross-load', () => {
  it('is named where +5 rises while +12 sinks, and only there', () => {
    expect(crossLoadOf({ light: 11.9, work: 11.6 }, { light: 5.02, work: 5.11 })).toMatchObject({
      twelveFallsVolts: expect.closeTo(0.3, 6),
      fiveRisesVolts: expect.closeTo(0.09, 6),
    });
    expect(crossLoadOf({ light: 11.9, work: 11.6 }, { light: 5.02, work: 5.0 })).toBeNull();
    expect(crossLoadOf({ light: 11.9, work: 11.88 }, { light: 5.02, work: 5.11 })).toBeNull();
    expect(crossLoadOf(null, { light: 5, work: 5.1 })).toBeNull();
  });
});
