import fc from 'fast-check';
import { expect, it } from 'vitest';
import { timeMarks } from './time-marks.ts';

const at = (time: string) => new Date(`2026-11-23T${time}`).getTime();
const shown = (from: string, to: string) =>
  timeMarks(at(from), at(to)).map((mark) => new Date(mark).toTimeString().slice(0, 5));

it.each([
  ['08:29:20', '08:33:40', ['08:30', '08:31', '08:32', '08:33']],
  ['08:29:20', '09:31:00', ['08:30', '08:40', '08:50', '09:00', '09:10', '09:20', '09:30']],
  ['08:10:00', '17:20:00', ['10:00', '12:00', '14:00', '16:00']],
])('%s to %s is marked by whole figures of the clock', (from, to, marks) => {
  expect(shown(from, to)).toEqual(marks);
});

it('lies inside the span, in even steps, and never too close', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 2e12 }), fc.integer({ min: 60_000, max: 4e10 }), (from, length) => {
      const marks = timeMarks(from, from + length);
      expect(marks.length).toBeLessThanOrEqual(8);
      expect(marks.every((mark) => mark >= from && mark <= from + length)).toBe(true);
      const gaps = new Set(marks.slice(1).map((mark, index) => mark - marks[index]!));
      expect(gaps.size).toBeLessThanOrEqual(1);
    }),
  );
});
