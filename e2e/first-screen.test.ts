import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { initialBytes } from '../bench/screen-weight.ts';

it('the first screen is light: 420 kB gzipped at most', async () => {
  const bytes = await initialBytes(fileURLToPath(new URL('../web/dist', import.meta.url)));
  expect(bytes).toBeGreaterThan(200_000);
  expect(bytes).toBeLessThanOrEqual(420_000);
});
