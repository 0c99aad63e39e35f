import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyFrom } from '../even.test-help.ts';
import { powerGoodLimits } from '../standards/index.ts';
import type { Instrument } from './instrument.ts';
import type { Condition, MeasuredValue, ReadingCode, Subject } from './reading.ts';
import { assumedDegrees } from './scatter.ts';
import { studentQuantile } from './student.ts';
import {
  judgeReadings,
  offConditions,
  settlingInstruments,
  settlingReadings,
  spreadOf,
  whileRunning,
  type Verdict,
} from './verdict.ts';

/** Errs the same at every reading, so that closed formulas stay short. */
const meterOf = (id: string, errorVolts: number): Instrument => ({
  id,
  name: id,
  kind: 'multimeter',
  ranges: [{ fullScaleVolts: 60, percent: 0, counts: 1, digitVolts: errorVolts }],
  powerGoodErrorMilliseconds: 5,
  rippleErrorMillivolts: 4,
  calibratedUntil: null,
  ownedBy: '',
});
const meter = meterOf('meter', 0.05);
const taken = (
  subject: Subject,
  value: number | ReadingCode,
  condition: Condition = 'idle',
  instrumentId = 'meter',
): MeasuredValue => ({
  subject,
  condition,
  instrumentId,
  value: typeof value === 'number' ? { kind: 'figure', figure: value } : { kind: 'code', code: value },
});
const judged = (subject: Subject, ...values: (number | ReadingCode)[]): Verdict =>
  judgeReadings(
    values.map((value) => taken(subject, value)),
    [meter],
    '2.x',
  )[0]!;

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
/** Half the 95 % interval of `count` readings that scatter by `spread`, joined with what is assumed. */
function halfWidth(assumed: number, spread: number | null, shownDegrees: number, count: number): number {
  const degrees = assumedDegrees + (spread === null ? 0 : shownDegrees);
  const joined = (assumedDegrees * assumed ** 2 + (spread === null ? 0 : shownDegrees * spread ** 2)) / degrees;
  return (studentQuantile(0.975, degrees) * Math.sqrt(joined)) / Math.sqrt(count);
}
/** U of so many readings by an instrument of this limit of error. */
const uncertainty = (error: number, scatter: number) => Math.hypot((2 * error) / Math.sqrt(3), scatter);

describe('what would settle a verdict of “cannot tell”', () => {
  const error = 0.05;
  const assumed = (() => {
    // From a single reading: U is known, its first part too.
    const { expanded } = judged('+12', 12);
    return Math.sqrt(expanded! ** 2 - (4 * error ** 2) / 3) / studentQuantile(0.975, assumedDegrees);
  })();
  const nearLimit = fc.array(anyFrom(11.2, 11.6), { minLength: 1, maxLength: 6 });
  const nearUpper = nearLimit.map((values) => values.map((value) => 24 - value));

  it('is the meter, and so many readings, by the closed formula: at the low limit and at the high one', () => {
    const seen = new Set<string>();
    fc.assert(
      fc.property(fc.oneof(nearLimit, nearUpper), (values) => {
        const verdict = judged('+12', ...values);
        if (verdict.word !== 'cannot-tell') return;
        const middle = mean(values);
        const [toLow, toHigh] = [Math.abs(middle - 11.4), Math.abs(middle - 12.6)];
        const distance = Math.min(toLow, toHigh);
        expect(verdict.reason).toBe(toLow < toHigh ? 'straddles-low' : 'straddles-high');
        const spread = spreadOf(values);
        const readings = Math.max(values.length, settlingReadings);
        const scatter =
          values.length >= settlingReadings
            ? halfWidth(assumed, spread, values.length - 1, values.length)
            : halfWidth(assumed, spread ?? assumed, readings - 1, readings);
        seen.add(`${verdict.settlingError !== null} ${verdict.settlingRepeats !== null}`);
        if (verdict.settlingError === null) expect(scatter).toBeGreaterThanOrEqual(distance);
        else expect(uncertainty(verdict.settlingError, scatter)).toBeCloseTo(distance, 9);
        const after = (count: number) => uncertainty(error, halfWidth(assumed, spread ?? assumed, count - 1, count));
        if (verdict.settlingRepeats === null)
          for (let count = values.length + 1; count <= 30; count += 1)
            expect(after(count)).toBeGreaterThanOrEqual(distance - 1e-12);
        else {
          expect(verdict.settlingRepeats).toBeGreaterThan(values.length);
          expect(after(verdict.settlingRepeats)).toBeLessThan(distance + 1e-12);
          if (verdict.settlingRepeats - 1 > values.length)
            expect(after(verdict.settlingRepeats - 1)).toBeGreaterThanOrEqual(distance - 1e-12);
        }
      }),
      { numRuns: 2000 },
    );
    expect([...seen].sort()).toEqual(['false false', 'false true', 'true false', 'true true']);
  });

  it('is never more than thirty repeats, and thirty at the most', () => {
    const asked = new Set<number>();
    for (let millivolts = 11_300; millivolts < 11_400; millivolts += 1)
      for (const wide of [0.02, 0.05, 0.1, 0.15, 0.2, 0.25]) {
        const repeats = judged('+12', millivolts / 1000 - wide, millivolts / 1000 + wide).settlingRepeats;
        if (repeats !== null) asked.add(repeats);
      }
    expect(Math.max(...asked)).toBe(30);
    expect(Math.min(...asked)).toBe(3);
  });

  it('is only another instrument that errs less than that, in the reading’s own kind', () => {
    const verdict = judged('+12', 11.45);
    const at = (error: number) => settlingInstruments(verdict, [meterOf('other', error)]).length;
    expect(at(verdict.settlingError! * 0.999)).toBe(1);
    expect(at(verdict.settlingError!)).toBe(0);
    expect(settlingInstruments(judged('+12', 12), [meterOf('best', 0)])).toEqual([]);
    // None of them reaches so far, or gives such a thing at all.
    const short: Instrument = { ...meter, ranges: [{ ...meter.ranges[0]!, fullScaleVolts: 5, digitVolts: 0 }] };
    expect(settlingInstruments(verdict, [short])).toEqual([]);
    const late = judged('power-good', 510);
    expect(late).toMatchObject({ word: 'cannot-tell', reason: 'straddles-high' });
    const timer = (powerGoodErrorMilliseconds: number | null) => ({ ...meter, powerGoodErrorMilliseconds });
    expect(settlingInstruments(late, [timer(null), timer(late.settlingError)])).toEqual([]);
    expect(settlingInstruments(late, [timer(late.settlingError! / 2)])).toHaveLength(1);
    const coarse = judged('ripple +12', 121);
    const probe = (rippleErrorMillivolts: number | null) => ({ ...meter, rippleErrorMillivolts });
    expect(settlingInstruments(coarse, [probe(null)])).toEqual([]);
    expect(settlingInstruments({ ...coarse, settlingError: 3 }, [probe(4), probe(3), probe(2)])).toHaveLength(1);
    expect(settlingInstruments({ ...coarse, settlingError: 3, mean: null }, [probe(2)])).toEqual([]);
  });
});

describe('a pass', () => {
  it('is marginal exactly in the last tenth of the way, at both ends', () => {
    const { expanded } = judged('+12', 12);
    const edge = { low: 11.4 + 0.1 * 0.6 + expanded!, high: 12.6 - 0.1 * 0.6 - expanded! };
    expect(judged('+12', edge.low + 1e-6)).toMatchObject({ word: 'pass', reason: 'inside' });
    expect(judged('+12', edge.low - 1e-6)).toMatchObject({ word: 'marginal', reason: 'near-low' });
    expect(judged('+12', edge.high - 1e-6)).toMatchObject({ word: 'pass', reason: 'inside' });
    expect(judged('+12', edge.high + 1e-6)).toMatchObject({ word: 'marginal', reason: 'near-high' });
  });
  it('of a time is never marginal by its limits alone, however near it comes', () => {
    const { expanded } = judged('hold-up', 40);
    expect(judged('hold-up', 16 + expanded! + 1e-6)).toMatchObject({ word: 'pass', reason: 'inside' });
    expect(judged('power-good', 100 + judged('power-good', 300).expanded! + 1e-6)).toMatchObject({ word: 'pass' });
  });
  it('on the very guide is none that is worse than it', () => {
    const verdict = (subject: Subject, value: number, guide: '2.x' | '3.x') =>
      judgeReadings([taken(subject, value)], [{ ...meter, powerGoodErrorMilliseconds: 0 }], guide)[0]!;
    const { slowMilliseconds: slow } = powerGoodLimits('3.x');
    expect(verdict('power-good', slow, '3.x')).toMatchObject({ word: 'pass', reason: 'inside' });
    expect(verdict('power-good', slow + 0.001, '3.x')).toMatchObject({
      word: 'marginal',
      reason: 'slower-than-guide',
    });
    expect(verdict('power-on', 150, '3.x')).toMatchObject({ word: 'pass', reason: 'inside' });
    expect(verdict('power-on', 150.001, '3.x')).toMatchObject({ word: 'marginal', reason: 'slower-than-guide' });
    expect(verdict('hold-up', 17, '3.x').reason).toBe('inside');
    expect(verdict('hold-up', 16.999, '3.x').reason).toBe('shorter-than-guide');
    // Nothing is worse than a guide that asks nothing more.
    expect([verdict('hold-up', 20, '2.x').reason, verdict('power-on', 400, '2.x').reason]).toEqual([
      'inside',
      'inside',
    ]);
  });
});

describe('among several', () => {
  it('the start that went farthest wrong is shown, early or late', () => {
    expect(judged('power-good', 300, 40, 20, 60)).toMatchObject({ reason: 'sometimes-early', mean: 20 });
    expect(judged('power-good', 300, 900, 700)).toMatchObject({ reason: 'sometimes-late', mean: 900 });
    expect(judged('power-good', 300, 700, 900)).toMatchObject({ reason: 'sometimes-late', mean: 900 });
    expect(judged('power-good', 20, 300, 540)).toMatchObject({ reason: 'sometimes-early', mean: 20 });
    expect(judged('power-good', 60, 300, 900)).toMatchObject({ reason: 'sometimes-late', mean: 900 });
    expect(judged('power-good', 300, 20)).toMatchObject({ settlingError: null, settlingRepeats: null });
  });
  it('the errors of a run-out calibration count for each start too', () => {
    const old = { ...meter, calibratedUntil: '2026-06-30', powerGoodErrorMilliseconds: 60 };
    const start = (figure: number, day: string): MeasuredValue => ({
      ...taken('power-good', figure),
      at: `${day}T09:00:00.000Z`,
    });
    const on = (day: string) => judgeReadings([start(300, day), start(580, day)], [old], '2.x')[0]!;
    expect(on('2026-06-30')).toMatchObject({ reason: 'sometimes-late', overdue: false });
    expect(on('2026-07-01').reason).not.toBe('sometimes-late');
    // One that was read too late is enough.
    const mixed = judgeReadings([start(300, '2026-06-30'), start(310, '2026-07-01')], [old], '2.x')[0]!;
    expect(mixed.overdue).toBe(true);
    // One without a time says nothing of the calibration.
    expect(judgeReadings([taken('power-good', 300)], [old], '2.x')[0]!.overdue).toBe(false);
  });
  it('repeats of ripple that differ are one verdict, not the worst of them', () => {
    expect(judged('ripple +12', 40, 130, 45).reason).not.toMatch(/sometimes/);
  });
  it('a code outweighs figures of the same instrument, whose mean stays', () => {
    expect(judged('+12', 12, 'wanders', 12.2)).toMatchObject({ word: 'cannot-tell', reason: 'wanders', mean: 12.1 });
    expect(judged('+12', 'too-low')).toMatchObject({ word: 'fail', mean: null, lower: 11.4, upper: 12.6 });
    expect(judged('+12', 'too-high', 12)).toMatchObject({ word: 'fail', reason: 'too-high', count: 2 });
    expect(judged('+5', 'absent')).toMatchObject({ word: 'cannot-tell', reason: 'not-started' });
  });
  it('the instrument that knows better speaks, and of equals the first', () => {
    const by = (...ids: string[]) =>
      judgeReadings(
        ids.map((id) => taken('+12', id === 'fine' ? 11.9 : 12, 'idle', id)),
        [meter, meterOf('fine', 0.01), meterOf('twin', 0.05)],
        '2.x',
      )[0]!.instrumentId;
    expect([by('meter', 'fine'), by('fine', 'meter'), by('meter', 'twin'), by('twin', 'meter')]).toEqual([
      'fine',
      'fine',
      'meter',
      'twin',
    ]);
    // One that gives no uncertainty gives way to any that does.
    const short: Instrument = { ...meter, id: 'short', ranges: [{ ...meter.ranges[0]!, fullScaleVolts: 5 }] };
    for (const order of [
      ['short', 'meter'],
      ['meter', 'short'],
    ]) {
      const readings = order.map((id) => taken('+12', 12, 'idle', id));
      expect(judgeReadings(readings, [meter, short], '2.x')[0]).toMatchObject({ instrumentId: 'meter', word: 'pass' });
    }
  });
  it('the reading that is farthest from nothing says which range was used', () => {
    const ranged: Instrument = {
      ...meter,
      ranges: [
        { fullScaleVolts: 12, percent: 0, counts: 1, digitVolts: 0.01 },
        { fullScaleVolts: 60, percent: 0, counts: 1, digitVolts: 0.2 },
      ],
    };
    const expanded = (...values: number[]) =>
      judgeReadings(
        values.map((value) => taken('+12', value)),
        [ranged],
        '2.x',
      )[0]!.expanded!;
    expect(expanded(11.99, 12.01)).toBeCloseTo(expanded(12.01, 11.99), 12);
    expect(expanded(11.99, 12.01)).toBeGreaterThan(2 * expanded(11.98, 12));
  });
});

describe('a figure that cannot be right', () => {
  it('is beyond the meter’s range, with its mean', () => {
    const short: Instrument = { ...meter, ranges: [{ ...meter.ranges[0]!, fullScaleVolts: 5 }] };
    expect(judgeReadings([taken('+12', 12), taken('+12', 12.2)], [short], '2.x')[0]).toMatchObject({
      word: 'cannot-tell',
      reason: 'beyond-range',
      mean: 12.1,
      expanded: null,
    });
  });
  it('has the other sign, unless it is next to nothing', () => {
    const started = (value: number) => judgeReadings([taken('+12', value)], [meter], '2.x', true)[0]!.reason;
    expect([started(-1.21), started(-1.2), started(-0.5), started(0.5)]).toEqual([
      'wrong-sign',
      'outside-low',
      'outside-low',
      'outside-low',
    ]);
  });
});

describe('a supply that was not started', () => {
  const off = [taken('+12', 0.3), taken('+5', 0.1), taken('+3.3', 'absent'), taken('+5sb', 5.02), taken('-12', -0.2)];
  const running = [taken('+12', 12, 'work'), taken('+5', 0.1, 'work')];

  it('shows next to nothing on every main rail that was read, in that condition alone', () => {
    expect(offConditions([...off, ...running], '2.x')).toEqual(new Set(['idle']));
    expect(offConditions([taken('+12', 1.199)], '2.x')).toEqual(new Set(['idle']));
    expect(offConditions([taken('+12', 1.201)], '2.x').size).toBe(0);
    expect(offConditions([taken('+12', -1.199)], '2.x').size).toBe(1);
    expect(offConditions([taken('+12', 'absent'), taken('+5', 'too-low')], '2.x').size).toBe(0);
    expect(offConditions([taken('+12', 'wanders')], '2.x').size).toBe(0);
    for (const rail of ['+12', '+5', '+3.3'] as const) expect(offConditions([taken(rail, 0)], '2.x').size).toBe(1);
    // What is no main rail says nothing of it.
    for (const subject of ['+5sb', '-12', 'power-good', 'ripple +12'] as const)
      expect(offConditions([taken(subject, 0)], '2.x').size).toBe(0);
    expect(offConditions([], '2.x').size).toBe(0);
  });
  it('is judged by its standby alone; what was read while it ran is judged', () => {
    const verdicts = new Map(
      judgeReadings([...off, ...running], [meter], '2.x').map((verdict) => [
        `${verdict.subject} ${verdict.condition}`,
        verdict,
      ]),
    );
    for (const subject of ['+12', '+5', '+3.3', '-12'])
      expect(verdicts.get(`${subject} idle`)).toMatchObject({
        word: 'cannot-tell',
        reason: 'not-started',
        settlingError: null,
        settlingRepeats: null,
      });
    expect(verdicts.get('+5sb idle')).toMatchObject({ word: 'pass', reason: 'inside' });
    expect(verdicts.get('+12 work')).toMatchObject({ word: 'pass' });
    expect(verdicts.get('+5 work')).toMatchObject({ word: 'fail', reason: 'outside-low' });
  });
  it('is judged whole where somebody saw to it that it was told to start', () => {
    for (const verdict of judgeReadings(off, [meter], '2.x', true)) expect(verdict.reason).not.toBe('not-started');
  });
  it('leaves its readings out of what was read while it ran', () => {
    expect(whileRunning([...off, ...running], '2.x')).toEqual(running);
    expect(whileRunning([...off, ...running], '2.x', true)).toEqual([...off, ...running]);
  });
});
