import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

/** Gzipped bytes of the JavaScript and CSS that a built index.html asks for at once. */
export async function initialBytes(directory: string): Promise<number> {
  const html = await readFile(join(directory, 'index.html'), 'utf8');
  const files = new Set(
    [...html.matchAll(/(?:src|href)="(\/?[^"]+\.(?:js|css))"/g)].map((match) => match[1]!.replace(/^\.?\//, '')),
  );
  let total = 0;
  for (const file of files) total += gzipSync(await readFile(join(directory, file))).length;
  return total;
}
