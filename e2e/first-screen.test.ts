import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { addedBytes, initialBytes } from '../bench/screen-weight.ts';

const built = fileURLToPath(new URL('../web/dist', import.meta.url));

it('the first screen is light: 400 kB gzipped at most', async () => {
  const bytes = await initialBytes(built);
  expect(bytes).toBeGreaterThan(200_000);
  expect(bytes).toBeLessThanOrEqual(400_000);
});

it('no screen adds more than 220 kB gzipped; charts and the calendar come when they are drawn', async () => {
  const added = await addedBytes(built);
  expect([...added.keys()]).toEqual(
    expect.arrayContaining(['measure', 'job-page', 'settings-page', 'plot', 'calendar']),
  );
  expect([...added].filter(([, bytes]) => bytes > 220_000)).toEqual([]);
});
