import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

const initialFiles = async (directory: string): Promise<ReadonlySet<string>> => {
  const html = await readFile(join(directory, 'index.html'), 'utf8');
  const asked = html.matchAll(/(?:src|href)="(\/?[^"]+\.(?:js|css))"/g);
  return new Set([...asked].map((match) => match[1]!.replace(/^\.?\//, '')));
};

async function gzipped(directory: string, files: Iterable<string>): Promise<number> {
  let total = 0;
  for (const file of files) total += gzipSync(await readFile(join(directory, file))).length;
  return total;
}

/** Gzipped bytes of the JavaScript and CSS that a built index.html asks for at once. */
export async function initialBytes(directory: string): Promise<number> {
  return gzipped(directory, await initialFiles(directory));
}

/** Gzipped bytes of the JavaScript that a file of a built application needs beyond the first screen, its own counted. */
export async function addedBytes(directory: string, file: string): Promise<number> {
  const initial = await initialFiles(directory);
  const needed = new Set<string>();
  const waiting = [file];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (initial.has(next) || needed.has(next)) continue;
    needed.add(next);
    const code = await readFile(join(directory, next), 'utf8');
    // What is imported at once; what is fetched later stands in parentheses.
    waiting.push(...[...code.matchAll(/(?:from|import)"\.\/([^"]+\.js)"/g)].map((match) => `assets/${match[1]}`));
  }
  return gzipped(directory, needed);
}
