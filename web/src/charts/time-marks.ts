import { boundToBe } from '@fairwatt/core';
import { wallAhead } from '../controls/clock.ts';

const minute = 60_000;
const steps = [1, 2, 5, 10, 15, 30, 60, 120, 180, 360, 720, 1440].map((minutes) => minutes * minute);

/**
 * Where a time axis is marked: whole minutes, hours or days by the shop's clock, at most `most` of them.
 * @param from milliseconds since 1970, as `to`
 */
export function timeMarks(from: number, to: number, most = 7): number[] {
  const days = boundToBe(steps.at(-1), 'step');
  const step = steps.find((size) => (to - from) / size <= most) ?? Math.ceil((to - from) / most / days) * days;
  // Marked by the clock on the wall, which is not that of the instants.
  const wall = -wallAhead(from);
  const first = Math.ceil((from - wall) / step) * step + wall;
  return Array.from({ length: Math.max(0, Math.floor((to - first) / step) + 1) }, (_, index) => first + index * step);
}
