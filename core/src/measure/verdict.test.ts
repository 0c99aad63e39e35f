import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyFrom } from '../even.test-help.ts';
import { assumedDegrees, scatterOf } from './scatter.ts';
import { studentQuantile } from './student.ts';
import { expandedUncertainty, judgeReadings, overdueFactor, settlingInstruments } from './verdict.ts';
import { type Instrument, gives, limitOfErrorVolts } from './instrument.ts';
import type { Condition, MeasuredValue, ReadingCode, Subject } from './reading.ts';

const pocket: Instrument = {
  id: 'pocket',
  name: 'Pocket meter',
  kind: 'multimeter',
  ranges: [{ fullScaleVolts: 20, percent: 0.5, counts: 2, digitVolts: 0.01 }],
  powerGoodErrorMilliseconds: null,
  rippleErrorMillivolts: null,
  calibratedUntil: null,
  ownedBy: '',
};
const bench: Instrument = {
  id: 'bench',
  name: 'Bench meter',
  kind: 'multimeter',
  ranges: [
    { fullScaleVolts: 60, percent: 0.05, counts: 2, digitVolts: 0.001 },
    { fullScaleVolts: 6, percent: 0.05, counts: 2, digitVolts: 0.0001 },
  ],
  powerGoodErrorMilliseconds: 5,
  rippleErrorMillivolts: null,
  calibratedUntil: null,
  ownedBy: '',
};
const meters = [pocket, bench];
const figure = (
  subject: Subject,
  value: number,
  instrumentId = 'pocket',
  condition: Condition = 'idle',
): MeasuredValue => ({ subject, condition, value: { kind: 'figure', figure: value }, instrumentId });
const code = (subject: Subject, value: ReadingCode): MeasuredValue => ({
  subject,
  condition: 'idle',
  value: { kind: 'code', code: value },
  instrumentId: 'pocket',
});
const word = (reading: MeasuredValue, guide: '2.x' | '3.x' = '2.x') => judgeReadings([reading], meters, guide)[0]!;

describe('limit of error', () => {
  it('takes the smallest range that holds the reading', () => {
    expect(limitOfErrorVolts(bench, 5)).toBeCloseTo(0.0027, 10);
    expect(limitOfErrorVolts(bench, 12)).toBeCloseTo(0.008, 10);
    expect(limitOfErrorVolts(bench, 61)).toBeNull();
  });
});

describe('verdict by guard band', () => {
  it('matches the worked example: 12 V, 0.5 % and 2 digits gives a 0.080 and U 0.108', () => {
    expect(limitOfErrorVolts(pocket, 12)).toBeCloseTo(0.08, 10);
    // 2 a/√3 = 0.0924; one reading scatters by 0.0204 V, Student's t with 4 degrees is 2.776.
    expect(expandedUncertainty(0.08, scatterOf(0.0204, null), 1)).toBeCloseTo(Math.hypot(0.0924, 0.0566), 4);
  });
  it.each([
    [12.0, 'pass', 'inside'],
    [11.45, 'cannot-tell', 'straddles-low'],
    [11.32, 'cannot-tell', 'straddles-low'],
    [11.31, 'cannot-tell', 'straddles-low'],
    [11.29, 'fail', 'outside-low'],
    [12.55, 'cannot-tell', 'straddles-high'],
    [12.8, 'fail', 'outside-high'],
  ] as const)('+12 V at %f is %s', (volts, expected, reason) => {
    expect(word(figure('+12', volts))).toMatchObject({ word: expected, reason });
  });
  it('judges both ends of a band alike, near, beyond and in between', () => {
    const mirrored = (text: string) =>
      text.replace('low', 'HIGH').replace('high', 'low').replace('HIGH', 'high').replace('LOW', 'low');
    const words = new Set<string>();
    fc.assert(
      fc.property(fc.integer({ min: 11_000, max: 12_000 }), (millivolts) => {
        // A meter that errs the same at both ends, as one does that errs by its digits alone.
        const flat: Instrument = { ...bench, id: 'flat', ranges: [{ ...bench.ranges[0]!, percent: 0, counts: 8 }] };
        const judged = (volts: number) => judgeReadings([figure('+12', volts, 'flat')], [flat], '2.x')[0]!;
        const below = judged(millivolts / 1000);
        const above = judged(24 - millivolts / 1000);
        words.add(`${below.word} ${below.reason}`);
        expect(above.word).toBe(below.word);
        expect(above.reason).toBe(mirrored(below.reason));
      }),
      { numRuns: 2000 },
    );
    expect([...words].sort()).toEqual([
      'cannot-tell straddles-low',
      'fail outside-low',
      'marginal near-low',
      'pass inside',
    ]);
  });
  it('gives a 3.x supply its wider band', () => {
    expect(word(figure('+12', 11.32, 'bench')).word).toBe('fail');
    expect(word(figure('+12', 11.32, 'bench'), '3.x').word).toBe('marginal');
  });
  it('judges the negative rail by its size, and asks about the other sign', () => {
    expect(word(figure('-12', -11.6)).word).toBe('pass');
    expect(word(figure('-12', 11.6))).toMatchObject({ word: 'cannot-tell', reason: 'wrong-sign' });
    expect(word(figure('+5', -5.02))).toMatchObject({ word: 'cannot-tell', reason: 'wrong-sign' });
    expect(word(figure('-12', -9.9))).toMatchObject({ word: 'fail', reason: 'outside-high' });
  });
  it('reads codes', () => {
    expect(word(code('+5', 'too-high'))).toMatchObject({ word: 'fail', mean: null });
    expect(word(code('+5', 'wanders')).word).toBe('cannot-tell');
    expect(word(code('-12', 'absent')).word).toBe('fail');
    expect(word(code('-12', 'absent'), '3.x')).toMatchObject({ word: 'pass', reason: 'absent-allowed' });
  });
  it('times power-good only with an instrument that can', () => {
    expect(word(figure('power-good', 370, 'bench')).word).toBe('pass');
    expect(word(figure('power-good', 370, 'bench'), '3.x')).toMatchObject({
      word: 'marginal',
      reason: 'slower-than-guide',
    });
    expect(word(figure('power-good', 60, 'bench')).word).toBe('fail');
    expect(word(figure('power-good', 370)).word).toBe('cannot-tell');
  });
  it('keeps a failed power-up in sight among good ones', () => {
    const delays = (...figures: number[]) =>
      judgeReadings(
        figures.map((value) => figure('power-good', value, 'bench')),
        meters,
        '2.x',
      )[0]!;
    expect(delays(370, 950)).toMatchObject({ word: 'fail', reason: 'sometimes-late', mean: 950, count: 2 });
    expect(delays(370, 60, 380)).toMatchObject({ word: 'fail', reason: 'sometimes-early', mean: 60 });
    expect(delays(950, 960)).toMatchObject({ word: 'fail', reason: 'outside-high' });
    expect(delays(370, 380).word).toBe('pass');
  });
  it('says which meter would settle it', () => {
    const verdict = word(figure('+12', 11.45));
    expect(settlingInstruments(verdict, meters).map((meter) => meter.id)).toEqual(['bench']);
  });
  it('lets the better instrument speak', () => {
    const verdicts = judgeReadings([figure('+12', 11.45), figure('+12', 11.46, 'bench')], meters, '2.x');
    expect(verdicts).toHaveLength(1);
    expect(verdicts[0]).toMatchObject({ instrumentId: 'bench', word: 'marginal', reason: 'near-low' });
  });
  it('refuses a reading of an unknown instrument', () => {
    expect(() => judgeReadings([figure('+12', 12, 'lost')], meters, '2.x')).toThrow(/unknown instrument/);
  });
  it('widens with scattering repeats as the closed formula says', () => {
    fc.assert(
      fc.property(fc.array(anyFrom(11, 13), { minLength: 2, maxLength: 9 }), (values) => {
        const verdict = judgeReadings(
          values.map((value) => figure('+12', value)),
          meters,
          '2.x',
        )[0]!;
        const n = values.length;
        const middle = values.reduce((a, b) => a + b, 0) / n;
        const variance = values.reduce((a, b) => a + (b - middle) ** 2, 0) / (n - 1);
        const a = Math.max(...values) * 0.005 + 0.02;
        const degrees = assumedDegrees + n - 1;
        const joined = (assumedDegrees * 0.0204 ** 2 + (n - 1) * variance) / degrees;
        const scatter = studentQuantile(0.975, degrees) ** 2 * (joined / n);
        expect(verdict.expanded!).toBeCloseTo(Math.sqrt((4 * a * a) / 3 + scatter), 9);
      }),
    );
  });
  it('never passes what is outside, nor fails what is inside', () => {
    fc.assert(
      fc.property(anyFrom(10, 14), (value) => {
        const verdict = word(figure('+12', value));
        if (value < 11.4 || value > 12.6) expect(['pass', 'marginal']).not.toContain(verdict.word);
        else expect(verdict.word).not.toBe('fail');
      }),
    );
  });
  it('counts half as much error again once the calibration has run out, and says so', () => {
    const old: Instrument = { ...meters[0]!, id: 'old', calibratedUntil: '2026-06-30', ownedBy: '' };
    const at = (day: string) =>
      judgeReadings(
        [
          {
            subject: '+12',
            condition: 'idle',
            value: { kind: 'figure', figure: 11.9 },
            instrumentId: 'old',
            at: `${day}T09:00:00.000Z`,
          },
        ],
        [old],
        '2.x',
      )[0]!;
    expect(at('2026-06-30').overdue).toBe(false);
    expect(at('2026-07-01').overdue).toBe(true);
    const scatter = scatterOf(0.0204, null);
    const error = 11.9 * 0.005 + 0.02;
    expect(at('2026-06-30').expanded!).toBeCloseTo(expandedUncertainty(error, scatter, 1), 9);
    expect(at('2026-07-01').expanded!).toBeCloseTo(expandedUncertainty(overdueFactor * error, scatter, 1), 9);
  });
  it('says how many repeats would settle it, and that many of the same scatter do', () => {
    const scatter = [11.43, 11.59, 11.35, 11.51].map((value): MeasuredValue => ({
      subject: '+12',
      condition: 'idle',
      value: { kind: 'figure', figure: value },
      instrumentId: 'bench',
    }));
    const verdict = judgeReadings(scatter, meters, '2.x')[0]!;
    expect(verdict.word).toBe('cannot-tell');
    expect(verdict.settlingRepeats).toBeGreaterThan(4);
    const more = Array.from({ length: verdict.settlingRepeats! * 2 }, (_, index) => scatter[index % 4]!);
    expect(judgeReadings(more, meters, '2.x')[0]!.word).not.toBe('cannot-tell');
  });
});

describe('times and ripple', () => {
  const scope: Instrument = { ...bench, id: 'scope', powerGoodErrorMilliseconds: 0.5, rippleErrorMillivolts: 4 };
  const judge = (guide: '2.x' | '3.x', subject: Subject, ...figures: number[]) =>
    judgeReadings(
      figures.map((value) => figure(subject, value, 'scope', 'work')),
      [scope],
      guide,
    )[0]!;
  it('have one limit, and are worse than their guide beyond what it wants', () => {
    expect(judge('2.x', 'power-on', 200)).toMatchObject({
      word: 'pass',
      reason: 'inside',
      lower: -Infinity,
      upper: 500,
    });
    expect(judge('3.x', 'power-on', 200)).toMatchObject({ word: 'marginal', reason: 'slower-than-guide' });
    expect(judge('3.x', 'power-on', 120)).toMatchObject({ word: 'pass', reason: 'inside' });
    expect(judge('3.x', 'power-on', 620)).toMatchObject({ word: 'fail', reason: 'outside-high' });
    expect(judge('2.x', 'hold-up', 21)).toMatchObject({ word: 'pass', reason: 'inside', lower: 16, upper: Infinity });
    expect(judge('2.x', 'hold-up', 12)).toMatchObject({ word: 'fail', reason: 'outside-low' });
    expect(judge('3.x', 'hold-up', 15.5)).toMatchObject({ word: 'marginal', reason: 'shorter-than-guide' });
    expect(judge('3.x', 'hold-up', 8)).toMatchObject({ word: 'fail', reason: 'outside-low' });
    expect(judge('2.x', 'ripple +12', 45)).toMatchObject({
      word: 'pass',
      reason: 'inside',
      lower: -Infinity,
      upper: 120,
    });
    expect(judge('2.x', 'ripple +5', 80)).toMatchObject({ word: 'fail', reason: 'outside-high' });
    expect(judge('2.x', 'ripple +5', 41)).toMatchObject({ word: 'marginal', reason: 'near-high' });
    expect(judge('2.x', 'ripple +5', 0)).toMatchObject({ word: 'pass' });
  });
  it('come only from an instrument that gives them, and codes stand for themselves', () => {
    for (const subject of ['power-on', 'hold-up', 'ripple -12'] as const)
      expect(word(figure(subject, 20))).toMatchObject({ word: 'cannot-tell', reason: 'beyond-range' });
    expect(word(code('power-on', 'absent'))).toMatchObject({ word: 'fail', reason: 'absent' });
    expect(gives(scope, 'ripple +12') && gives(scope, 'hold-up') && gives(pocket, '+12')).toBe(true);
    expect(gives(bench, 'ripple +12') || gives(pocket, 'hold-up')).toBe(false);
  });
  it('keep one that failed in sight among good ones', () => {
    expect(judge('2.x', 'hold-up', 22, 12, 21)).toMatchObject({ word: 'fail', reason: 'sometimes-early', mean: 12 });
    expect(judge('2.x', 'power-on', 200, 900)).toMatchObject({ word: 'fail', reason: 'sometimes-late', mean: 900 });
  });
  it('pass and fail exactly where the closed formula has them', () => {
    const cases = fc.record({
      subject: fc.constantFrom<Subject>('ripple +12', 'ripple +5sb', 'power-on', 'hold-up'),
      figures: fc.array(anyFrom(0, 700), { minLength: 1, maxLength: 6 }),
    });
    fc.assert(
      fc.property(cases, ({ subject, figures }) => {
        const verdict = judge('2.x', subject, ...figures);
        if (verdict.reason === 'sometimes-early' || verdict.reason === 'sometimes-late') return;
        const count = figures.length;
        const mean = figures.reduce((sum, value) => sum + value, 0) / count;
        const shown = count < 2 ? 0 : figures.reduce((sum, value) => sum + (value - mean) ** 2, 0);
        const limit = { 'ripple +12': 120, 'ripple +5sb': 50, 'power-on': 500, 'hold-up': 16 }[subject as string]!;
        const assumed = subject === 'power-on' ? 5 : subject === 'hold-up' ? 1 : 0.03 * limit;
        const degrees = assumedDegrees + count - 1;
        const deviation = Math.sqrt((assumedDegrees * assumed ** 2 + shown) / degrees);
        const error = subject.startsWith('ripple') ? 4 : 0.5;
        const wide = Math.hypot(
          (2 * error) / Math.sqrt(3),
          (studentQuantile(0.975, degrees) * deviation) / Math.sqrt(count),
        );
        expect(verdict.expanded).toBeCloseTo(wide, 6);
        const room = subject === 'hold-up' ? mean - limit : limit - mean;
        if (Math.abs(Math.abs(room) - wide) < 1e-6) return;
        expect(verdict.word === 'fail').toBe(room < -wide);
        expect(['pass', 'marginal'].includes(verdict.word)).toBe(room > wide);
      }),
    );
  });
});
