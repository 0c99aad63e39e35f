import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { stationIds } from '@fairwatt/core';
import { addedBytes, initialBytes } from '../bench/screen-weight.ts';

const built = fileURLToPath(new URL('../web/dist', import.meta.url));

it('the first screen is light: 400 kB gzipped at most', async () => {
  const bytes = await initialBytes(built);
  expect(bytes).toBeGreaterThan(200_000);
  expect(bytes).toBeLessThanOrEqual(400_000);
});

const stations = stationIds.map((id): [string, string] => [id, 'job-page']);

it('no screen adds more than 150 kB gzipped, a station with the page around it; tables and charts come beside', async () => {
  const added = await addedBytes(built, new Map(stations));
  expect([...added.keys()]).toEqual(
    expect.arrayContaining([...stationIds, 'job-page', 'settings-page', 'sheet-table', 'plot', 'calendar']),
  );
  expect([...added].filter(([, bytes]) => bytes > 150_000)).toEqual([]);
});
