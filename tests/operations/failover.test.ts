import { expect, it } from 'vitest';
import { failover } from './failover/failover.ts';

it('loses nothing that was confirmed when the primary is killed under load and its standby is promoted', async () => {
  const report = await failover({ rounds: 1, seed: 2026, synchronous: true, say: () => undefined });
  expect(report).toMatchObject({ lost: 0, wrong: [], refused: 0 });
  expect(report.confirmed).toBeGreaterThan(20);
}, 900_000);
