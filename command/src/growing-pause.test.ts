import { expect, it } from 'vitest';
import { GrowingPause } from './growing-pause.ts';

it('doubles from failure to failure up to the most, and begins anew after a quiet time', () => {
  const pause = new GrowingPause(500, 4000, 60_000);
  expect([0, 1000, 2000, 3000, 4000].map((now) => pause.after(now))).toEqual([500, 1000, 2000, 4000, 4000]);
  expect(pause.after(64_001)).toBe(500);
  expect(pause.after(65_000)).toBe(1000);
});
