import { readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { addedBytes, initialBytes } from '../bench/screen-weight.ts';

const dist = fileURLToPath(new URL('../web/dist', import.meta.url));
const routes = [
  ...['cable-bags-page', 'guide-page', 'health-page', 'instruments-page', 'people-page', 'record-page'],
  ...['settings-page', 'supplies-page', 'job-page'],
  ...['intake', 'fault', 'measure', 'load', 'replacement', 'cables', 'hand-over'],
];

it('the first screen is light: 420 kB gzipped at most', async () => {
  const bytes = await initialBytes(dist);
  expect(bytes).toBeGreaterThan(200_000);
  expect(bytes).toBeLessThanOrEqual(420_000);
});

it.each(routes)('%s adds 260 kB to it at most', async (route) => {
  const file = readdirSync(`${dist}/assets`).find((name) => new RegExp(`^${route}-.{8}\\.js$`).test(name));
  const bytes = await addedBytes(dist, `assets/${file}`);
  expect(bytes).toBeGreaterThan(1_000);
  expect(bytes).toBeLessThanOrEqual(260_000);
});
