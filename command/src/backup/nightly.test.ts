import { expect, it } from 'vitest';
import { lastDue } from './nightly.ts';

it('a nightly backup is due at its hour, and one that was missed is due still', () => {
  const at = (text: string) => new Date(`2026-11-25T${text}`);
  expect(lastDue(2, at('02:00:00'))).toEqual(at('02:00:00'));
  expect(lastDue(2, at('09:30:00'))).toEqual(at('02:00:00'));
  expect(lastDue(2, at('01:59:59'))).toEqual(new Date('2026-11-24T02:00:00'));
  expect(lastDue(0, at('00:00:01'))).toEqual(at('00:00:00'));
});
