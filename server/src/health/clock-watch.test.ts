import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { ClockWatch } from './clock-watch.ts';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

it('tells a clock that was set from one that runs, forward and back', () => {
  vi.spyOn(process.stdout, 'write').mockReturnValue(true);
  let wall = 1_700_000_000_000;
  let steady = 0;
  const pass = (seconds: number, setBy = 0) => {
    steady += seconds * 1000;
    wall += (seconds + setBy) * 1000;
    vi.advanceTimersByTime(10_000);
  };
  const watch = new ClockWatch(
    () => wall,
    () => steady,
  );
  pass(10);
  pass(10, 5);
  expect(watch.jump).toBeNull();
  // A machine that slept is no clock that was set: both went on.
  pass(3600);
  expect(watch.jump).toBeNull();
  pass(10, 7200);
  expect(watch.jump).toMatchObject({ seconds: 7200 });
  pass(10, -90_000);
  expect(watch.jump).toMatchObject({ seconds: -90_000 });
  watch.close();
  vi.restoreAllMocks();
});
