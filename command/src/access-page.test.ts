import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { actPermissions, endpoints } from '@fairwatt/contract';
import { accessPage } from './access-page.ts';
import { root } from './paths.ts';

it('the page of who may do what is the one that the matrix makes, with every endpoint and act in it', () => {
  expect(readFileSync(join(root, 'docs/access.md'), 'utf8')).toBe(accessPage());
  for (const { method, path } of endpoints) expect(accessPage()).toContain(`\`${method} ${path}\``);
  for (const act of Object.keys(actPermissions)) expect(accessPage()).toContain(`\`${act}\``);
});
