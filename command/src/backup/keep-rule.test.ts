import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { keptBackups, keptDays, keptMonths, keptWeeks } from './keep-rule.ts';

const day = 86_400_000;
const nightly = (nights: number, last: string) =>
  Array.from({ length: nights }, (_, night) => new Date(Date.parse(last) - night * day).toISOString());

describe('which backups are kept', () => {
  it('the last seven days, five weeks and twelve months', () => {
    const kept = [...keptBackups(nightly(800, '2026-11-25T02:00:00.000Z'))].map((time) => time.slice(0, 10)).sort();
    expect(kept.slice(-7)).toEqual([19, 20, 21, 22, 23, 24, 25].map((date) => `2026-11-${date}`));
    // Sundays of the weeks before, and the last nights of the months before.
    expect(kept).toContain('2026-11-15');
    expect(kept).toContain('2026-11-08');
    expect(kept).toContain('2026-11-01');
    expect(kept).toContain('2026-10-31');
    expect(kept).toContain('2025-12-31');
    expect(kept[0]).toBe('2025-12-31');
  });
  it('the newest of a day that has several', () => {
    const times = ['2026-11-25T02:00:00.000Z', '2026-11-25T09:00:00.000Z'];
    expect([...keptBackups(times)]).toEqual([times[1]]);
  });
  it('never more than the rule says, always the newest, the same in any order', () => {
    const time = fc.integer({ min: 0, max: 900 * day }).map((late) => new Date(1.7e12 + late).toISOString());
    fc.assert(
      fc.property(fc.uniqueArray(time, { minLength: 1, maxLength: 60 }), (times) => {
        const kept = keptBackups(times);
        expect(kept.size).toBeLessThanOrEqual(keptDays + keptWeeks + keptMonths);
        expect(kept.has(times.reduce((newest, other) => (other > newest ? other : newest)))).toBe(true);
        expect(keptBackups([...times].reverse())).toEqual(kept);
        // Taking away what is not kept changes nothing, so that a rule applied nightly never eats its own.
        expect(keptBackups([...kept])).toEqual(kept);
      }),
      { seed: 7 },
    );
  });
});
