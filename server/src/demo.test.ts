import { describe, expect, it } from 'vitest';
import { calibratedNow } from './demo.ts';

const until = (calibratedUntil: string | null, now: string) => calibratedNow({ calibratedUntil }, now).calibratedUntil;

describe('an instrument of the demo', () => {
  it('is calibrated as its file says while that lasts', () => {
    expect(until('2027-03-31', '2026-11-30T12:00:00.000Z')).toBe('2027-03-31');
  });
  it('is calibrated for some months whenever the demo is loaded', () => {
    expect(until('2027-03-31', '2031-05-01T12:00:00.000Z')).toBe('2031-08-29');
  });
  it('is out of calibration where it was meant to be, and never where it has none', () => {
    expect(until('2026-06-30', '2031-05-01T12:00:00.000Z')).toBe('2026-06-30');
    expect(until(null, '2031-05-01T12:00:00.000Z')).toBeNull();
  });
});
