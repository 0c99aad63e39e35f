import { describe, expect, it } from 'vitest';
import { judgeReadings } from './verdict.ts';
import { errorOf, meterOf, normal, seeded, shownBy } from '../simulate/index.ts';
import { steadinessOf } from './steadiness.ts';

describe('verdicts over simulated supplies near the limit', () => {
  const meter = meterOf(0.5, 2, 0.01);
  // True volts spread evenly around the lower limit; the meter's error is anywhere inside its limit, as its
  // specification says.
  const random = seeded(20261124);
  const counts = { pass: 0, passOutside: 0, fail: 0, failInside: 0, cannotTell: 0 };
  for (let supply = 0; supply < 10_000; supply += 1) {
    const truth = 11.4 + (random() - 0.5) * 0.6;
    const error = (random() * 2 - 1) * (truth * 0.005 + 0.02);
    const shown = Math.round((truth + error) * 100) / 100;
    const verdict = judgeReadings(
      [{ subject: '+12', condition: 'idle', value: { kind: 'figure', figure: shown }, instrumentId: 'm' }],
      [meter],
      '2.x',
    )[0]!;
    if (verdict.word === 'pass') {
      counts.pass += 1;
      if (truth < 11.4) counts.passOutside += 1;
    } else if (verdict.word === 'fail') {
      counts.fail += 1;
      if (truth >= 11.4) counts.failInside += 1;
    } else counts.cannotTell += 1;
  }
  it('at most 2.5 % of "pass" is truly outside, and of "fail" truly inside', () => {
    expect(counts.pass).toBeGreaterThan(1000);
    expect(counts.fail).toBeGreaterThan(1000);
    expect(counts.passOutside / counts.pass).toBeLessThanOrEqual(0.025);
    expect(counts.failInside / counts.fail).toBeLessThanOrEqual(0.025);
  });
  it('says "cannot tell" only where the meter\'s error and the noise of one reading make it so', () => {
    expect(counts.cannotTell / 10_000).toBeLessThan(0.46);
  });
});

describe('verdicts from repeats, where the rail is noisy as well', () => {
  const hand = meterOf(0.5, 2, 0.01);
  const bench = meterOf(0.015, 3, 0.0001);
  it.each([
    ['hand', 0.005, 2],
    ['hand', 0.06, 3],
    ['hand', 0.06, 6],
    ['bench', 0.005, 2],
    ['bench', 0.02, 3],
    ['bench', 0.06, 2],
    ['bench', 0.06, 6],
  ] as const)(
    'a "pass" is truly outside in at most one of forty: %s meter, %d V of noise, %d repeats',
    (kind, noise, repeats) => {
      const instrument = { hand, bench }[kind];
      const random = seeded(77);
      const range = instrument.ranges[0]!;
      const counts = { inside: 0, wronglyInside: 0, fail: 0, wronglyFail: 0 };
      for (let supply = 0; supply < 10_000; supply += 1) {
        const truth = 11.4 + (random() - 0.5) * 0.6;
        const off = (random() * 2 - 1) * ((truth * range.percent) / 100 + range.counts * range.digitVolts);
        const readings = Array.from({ length: repeats }, () => ({
          subject: '+12' as const,
          condition: 'idle' as const,
          value: {
            kind: 'figure' as const,
            figure: Math.round((truth + off + noise * normal(random)) / range.digitVolts) * range.digitVolts,
          },
          instrumentId: 'm',
        }));
        const { word } = judgeReadings(readings, [instrument], '2.x')[0]!;
        if (word === 'pass' || word === 'marginal') {
          counts.inside += 1;
          if (truth < 11.4) counts.wronglyInside += 1;
        }
        if (word === 'fail') {
          counts.fail += 1;
          if (truth >= 11.4) counts.wronglyFail += 1;
        }
      }
      expect(counts.inside).toBeGreaterThan(2500);
      expect(counts.fail).toBeGreaterThan(2500);
      expect(counts.wronglyInside / counts.inside).toBeLessThanOrEqual(0.025);
      expect(counts.wronglyFail / counts.fail).toBeLessThanOrEqual(0.025);
    },
  );
});

describe('a rail 1 mV below its limit, with 30 mV of noise', () => {
  it.each(
    [1, 2, 3, 5, 8].flatMap((repeats) =>
      [meterOf(0.015, 3, 0.0001), meterOf(0.05, 2, 0.001), meterOf(0.5, 2, 0.01)].map((meter) => ({
        repeats,
        meter,
        digit: meter.ranges[0]!.digitVolts,
      })),
    ),
  )('passes in at most 5 of 100: $repeats readings, digit $digit V', ({ repeats, meter }) => {
    const random = seeded(83);
    const truth = 11.399;
    let passed = 0;
    for (let supply = 0; supply < 4000; supply += 1) {
      const error = errorOf(meter, truth, random);
      const readings = Array.from({ length: repeats }, () => ({
        subject: '+12' as const,
        condition: 'work' as const,
        value: { kind: 'figure' as const, figure: shownBy(meter, truth, error, 0.03, random) },
        instrumentId: 'm',
      }));
      const { word } = judgeReadings(readings, [meter], '2.x')[0]!;
      if (word === 'pass' || word === 'marginal') passed += 1;
    }
    expect(passed / 4000).toBeLessThanOrEqual(0.05);
  });
});

describe('healthy supplies read by a tester that shows tenths of a volt', () => {
  it('are called sagging or wandering in at most 2 of 100', () => {
    const tester = meterOf(1, 1, 0.1);
    const random = seeded(84);
    let accused = 0;
    for (let supply = 0; supply < 2000; supply += 1) {
      const words = (['+12', '+5', '+3.3'] as const).map((rail) => {
        const nominal = Number(rail.slice(1));
        const open = nominal * (1 + 0.015 * normal(random));
        const drop = nominal * 0.01 * random();
        const error = errorOf(tester, nominal, random);
        const readings = (['idle', 'work'] as const).flatMap((condition) =>
          Array.from({ length: 3 }, () => ({
            subject: rail,
            condition,
            value: {
              kind: 'figure' as const,
              figure: shownBy(tester, open - (condition === 'work' ? drop : 0), error, nominal * 0.001, random),
            },
            instrumentId: 'm',
          })),
        );
        return steadinessOf(rail, readings, [tester], '2.x').word;
      });
      if (words.some((word) => word !== 'steady')) accused += 1;
    }
    expect(accused / 2000).toBeLessThanOrEqual(0.02);
  });
  it('a true sag of half a volt is seen all the same', () => {
    const tester = meterOf(1, 1, 0.1);
    const at = (condition: 'idle' | 'work', figure: number) => ({
      subject: '+12' as const,
      condition,
      value: { kind: 'figure' as const, figure },
      instrumentId: 'm',
    });
    expect(steadinessOf('+12', [at('idle', 12.1), at('work', 11.6)], [tester], '2.x').word).toBe('sags');
    expect(steadinessOf('+12', [at('idle', 12.1), at('work', 11.8)], [tester], '2.x').word).toBe('steady');
  });
});

describe('steadiness over simulated supplies', () => {
  const meter = meterOf(0.5, 2, 0.01);
  /** How often a drift is seen in supplies that lose so many volts an hour, and the mean slope told then. */
  function seen(voltsPerHour: number): { readonly share: number; readonly slope: number } {
    const random = seeded(31);
    const slopes: number[] = [];
    for (let supply = 0; supply < 2000; supply += 1) {
      const readings = Array.from({ length: 8 }, (_, index) => ({
        subject: '+12' as const,
        condition: 'work' as const,
        value: {
          kind: 'figure' as const,
          figure: Math.round((11.9 + (voltsPerHour * index) / 12 + 0.012 * normal(random)) * 100) / 100,
        },
        instrumentId: 'm',
        at: new Date(Date.UTC(2026, 0, 1) + index * 300_000).toISOString(),
      }));
      const { driftVoltsPerHour } = steadinessOf('+12', readings, [meter], '2.x');
      if (driftVoltsPerHour !== null) slopes.push(driftVoltsPerHour);
    }
    return { share: slopes.length / 2000, slope: slopes.reduce((sum, slope) => sum + slope, 0) / slopes.length };
  }
  it('a rail that stands still is said to drift in about one of twenty', () => {
    expect(seen(0).share).toBeGreaterThan(0.03);
    expect(seen(0).share).toBeLessThan(0.07);
  });
  it('a rail that sinks while it warms is found nearly always, with its slope', () => {
    const { share, slope } = seen(-0.2);
    expect(share).toBeGreaterThan(0.97);
    expect(slope).toBeCloseTo(-0.2, 1);
  });
  it('the spread that is left without the rounding is the noise that was put in', () => {
    const random = seeded(32);
    let squares = 0;
    for (let supply = 0; supply < 4000; supply += 1) {
      const start = 11.9 + random() / 100;
      const readings = Array.from({ length: 6 }, () => ({
        subject: '+12' as const,
        condition: 'work' as const,
        value: { kind: 'figure' as const, figure: Math.round((start + 0.012 * normal(random)) * 100) / 100 },
        instrumentId: 'm',
      }));
      squares += (steadinessOf('+12', readings, [meter], '2.x').spreadVolts ?? 0) ** 2;
    }
    expect(Math.sqrt(squares / 4000) / 0.012).toBeGreaterThan(0.98);
    expect(Math.sqrt(squares / 4000) / 0.012).toBeLessThan(1.02);
  });
});
