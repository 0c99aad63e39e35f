import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readDate, yearsSince } from './date-code.ts';

const today = '2026-11-26';

describe('a date on a label', () => {
  it.each([
    ['2019-05', 2019, 5],
    ['2019/05/17', 2019, 5],
    ['201905', 2019, 5],
    ['20190517', 2019, 5],
    ['05/2019', 2019, 5],
    ['17.05.2019', 2019, 5],
    ['2019 W21', 2019, 5],
    ['WK 52/2018', 2018, 12],
    ['2019', 2019, null],
    [' 2026-11 ', 2026, 11],
  ])('%s is read', (text, year, month) => {
    expect(readDate(text, today)).toEqual({ year, month });
  });
  it.each(['', '1923', 'F190512', '19-05', '2019-13', '2027', '2026-12', '1850-01', '201', '05.17.2019.1', 'S/N 2019'])(
    '%s is no plain date',
    (text) => {
      expect(readDate(text, today)).toBeNull();
    },
  );
  it('is never in the future and never throws', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.stringMatching(/^[0-9wk/. -]{0,10}$/)), (text) => {
        const date = readDate(text, today);
        if (date !== null) expect(yearsSince(date, today)).toBeGreaterThanOrEqual(0);
      }),
      { seed: 2, numRuns: 2000 },
    );
  });
  it('tells the age to a tenth of a year; a year alone is taken at its middle', () => {
    expect(yearsSince({ year: 2019, month: 5 }, today)).toBe(7.5);
    expect(yearsSince({ year: 2019, month: null }, today)).toBe(7.4);
    expect(yearsSince({ year: 2026, month: 11 }, today)).toBe(0);
  });
});
