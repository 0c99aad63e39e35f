import { describe, expect, it } from 'vitest';
import type { Forecast, LogEvent, LogProblem, LogShapeProblem, PinExpectation } from '../measure/index.ts';
import { unreadRailsText, forecastText, logEventText, logProblemText, logShapeText, pinExpectText } from './index.ts';

const forecast: Forecast = {
  rail: '+12',
  amps: 41,
  volts: 11.36,
  interval: { low: 11.28, high: 11.43 },
  lower: 11.4,
  upper: 12.6,
  word: 'cannot-tell',
  beyondAmps: null,
  bends: false,
  nextAmps: null,
};

describe('sentences of measuring', () => {
  it('say figure first, then what it means, and which limit', () => {
    expect(forecastText({ ...forecast, volts: 11.3, interval: { low: 11.28, high: 11.33 }, word: 'will-fail' })).toBe(
      'At 41 A expect 11.28 to 11.33 V: will fail, the band ends at 11.40 V.',
    );
    expect(forecastText({ ...forecast, word: 'will-pass' })).toBe('At 41 A expect 11.28 to 11.43 V: will pass.');
    expect(forecastText(forecast)).toContain('cannot tell');
    expect(forecastText({ ...forecast, beyondAmps: 30, nextAmps: 41 })).toContain('cannot tell beyond 30 A');
    expect(forecastText({ ...forecast, beyondAmps: 30, nextAmps: 41 })).toContain('Read it at 41 A next');
    expect(forecastText({ ...forecast, beyondAmps: 30, bends: true, nextAmps: 41 })).toContain('bends');
    expect(
      forecastText({ ...forecast, volts: 12.7, interval: { low: 12.65, high: 12.75 }, word: 'will-fail' }),
    ).toContain('12.60');
  });
  it('name the rails that nobody read near the planned load, in one line', () => {
    expect(unreadRailsText([{ ...forecast, word: 'will-pass' }, forecast])).toBeNull();
    expect(
      unreadRailsText([
        { ...forecast, beyondAmps: 30, nextAmps: 41 },
        { ...forecast, rail: '+5', amps: 6.12, beyondAmps: 5, nextAmps: 6.12 },
      ]),
    ).toBe('Not read near the planned load: +12 V (read it at 41 A), +5 V (read it at 6.1 A).');
  });
  it('are there for every expectation, problem and event', () => {
    const expectations: PinExpectation[] = [
      { kind: 'rail', rail: '+5sb', lower: 4.75, upper: 5.25 },
      { kind: 'ground', lower: -0.2, upper: 0.2 },
      { kind: 'signal', signal: 'start', lower: -0.2, upper: 0.8 },
      { kind: 'signal', signal: 'power-good', lower: 2.4, upper: 5.25 },
      { kind: 'free' },
    ];
    const problems: LogProblem[] = [
      { code: 'no-rows' },
      { code: 'no-time-column' },
      { code: 'no-rail-column' },
      { code: 'too-many-rows', most: 1_000_000 },
      { code: 'changing-columns', row: 7, share: 0.2 },
      { code: 'endless-row', row: 7 },
      { code: 'unreadable', row: 7, share: 0.06 },
      { code: 'time-backwards', row: 7, share: 0.5 },
    ];
    const shapes: LogShapeProblem[] = [
      { code: 'empty' },
      { code: 'one-column' },
      { code: 'no-figures' },
      { code: 'no-time' },
      { code: 'no-rail' },
    ];
    const events: LogEvent[] = (['dip', 'spike', 'step', 'gap'] as const).map((kind) => ({
      rail: '+12',
      kind,
      atSeconds: 3,
      lastsSeconds: 0.25,
      volts: kind === 'gap' ? null : 10.8,
      fromVolts: kind === 'step' ? 12 : null,
    }));
    const texts = [
      ...expectations.map(pinExpectText),
      ...problems.map(logProblemText),
      ...shapes.map(logShapeText),
      ...events.map(logEventText),
    ];
    expect(new Set(texts).size).toBe(texts.length);
    for (const text of texts) expect(text).not.toMatch(/undefined|NaN|!/);
    expect(logProblemText(problems[4]!)).toContain('row 7');
    expect(logEventText(events[0]!)).toBe('+12 V dips to 10.80 V for 250 ms');
  });
});
