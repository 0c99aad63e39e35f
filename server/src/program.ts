import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Model } from '@fairwatt/core';

const core = fileURLToPath(new URL('../../core/', import.meta.url));

/** A name of what judges here: another one as soon as the core or the knowledge is another. */
export function programName(model: Model): string {
  const hash = createHash('sha256').update(JSON.stringify(model.shipped));
  const folder = join(core, import.meta.url.endsWith('.ts') ? 'src' : 'dist');
  const files = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((name) => /\.[jt]s$/.test(name));
  for (const name of files.sort()) hash.update(name).update(readFileSync(join(folder, name)));
  return hash.digest('hex').slice(0, 16);
}
