import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { licencesPage, shippedPackages } from './licences-page.ts';
import { root } from './paths.ts';

/** Licences that let a program ship with what stands under them, for no more than naming them. */
const taken = new Set([
  'MIT',
  'ISC',
  '0BSD',
  'BSD-2-Clause',
  'BSD-3-Clause',
  'Apache-2.0',
  'BlueOak-1.0.0',
  'OFL-1.1',
  '(MIT AND Zlib)',
  '(MIT OR CC0-1.0)',
]);

it('the list of licences is the one of what ships now, and each lets it ship', () => {
  expect(readFileSync(join(root, 'docs/licences.md'), 'utf8')).toBe(licencesPage());
  expect(shippedPackages().filter(({ licence }) => !taken.has(licence))).toEqual([]);
});
