import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { root } from './paths.ts';

/** Names of the migrations that this program knows, in order. */
export async function migrationFiles(): Promise<string[]> {
  const names = await readdir(join(root, 'server/migrations'));
  return names
    .filter((name) => name.endsWith('.sql'))
    .map((name) => name.replace(/\.sql$/, ''))
    .sort();
}
