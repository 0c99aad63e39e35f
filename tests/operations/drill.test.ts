import { expect, it } from 'vitest';
import { drill } from './drill/drill.ts';

it('loses and doubles nothing over 30 kills of server, database and command on a rough line', async () => {
  const report = await drill(30, 2026, () => undefined);
  expect(report.wrong).toEqual([]);
  expect(report.refused).toBe(0);
  expect(report.confirmed).toBeGreaterThan(50);
}, 900_000);
