import { expect, it } from 'vitest';
import { lastDue, NightlyBackups } from './nightly.ts';

it('a nightly backup is due at its hour, and one that was missed is due still', () => {
  const at = (text: string) => new Date(`2026-11-25T${text}`);
  expect(lastDue(2, at('02:00:00'))).toEqual(at('02:00:00'));
  expect(lastDue(2, at('09:30:00'))).toEqual(at('02:00:00'));
  expect(lastDue(2, at('01:59:59'))).toEqual(new Date('2026-11-24T02:00:00'));
  expect(lastDue(0, at('00:00:01'))).toEqual(at('00:00:00'));
});

it('goes on when nobody can say where the database is', async () => {
  let asked = 0;
  const nightly = new NightlyBackups(
    () => {
      asked += 1;
      return Promise.reject(new Error('None of them takes writes just now.'));
    },
    false,
    5,
  );
  await expect.poll(() => asked).toBeGreaterThan(0);
  await expect(nightly.leave()).resolves.toBeUndefined();
});
