import { readdir, readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { gzipSync } from 'node:zlib';

const gzipped = async (file: string) => gzipSync(await readFile(file)).length;

/** Names of the JavaScript and CSS that a built index.html asks for at once. */
async function initialFiles(directory: string): Promise<readonly string[]> {
  const html = await readFile(join(directory, 'index.html'), 'utf8');
  const asked = [...html.matchAll(/(?:src|href)="(\/?[^"]+\.(?:js|css))"/g)];
  return [...new Set(asked.map((match) => match[1]!.replace(/^\.?\//, '')))];
}

/** Gzipped bytes of the JavaScript and CSS that a built index.html asks for at once. */
export async function initialBytes(directory: string): Promise<number> {
  const files = await initialFiles(directory);
  return (await Promise.all(files.map((file) => gzipped(join(directory, file))))).reduce((sum, bytes) => sum + bytes);
}

/** A piece of the build with all that it asks for before it runs. */
async function withImports(assets: string, name: string, found = new Set<string>()): Promise<ReadonlySet<string>> {
  if (found.has(name)) return found;
  found.add(name);
  const text = await readFile(join(assets, name), 'utf8');
  for (const [, next] of text.matchAll(/(?:from|import)\s?["'`]\.\/([^"'`]+\.js)["'`]/g))
    await withImports(assets, next!, found);
  return found;
}

/**
 * Gzipped bytes of JavaScript that each screen asks for before it is drawn, beyond what the first one had; by the name
 * of its piece without the hash. What stands inside another screen, as a station in its job's page, has that one's with
 * it. Tables, charts, what opens as a dialog and what reads print come beside a screen that is drawn.
 * @param within the screen around each that has one
 */
export async function addedBytes(
  directory: string,
  within: ReadonlyMap<string, string>,
): Promise<ReadonlyMap<string, number>> {
  const assets = join(directory, 'assets');
  const had = new Set<string>();
  for (const file of await initialFiles(directory))
    if (file.endsWith('.js')) for (const name of await withImports(assets, basename(file))) had.add(name);
  const pieces = new Map<string, string>();
  for (const name of await readdir(assets))
    if (name.endsWith('.js') && !/^(shared|tesseract|secret-strength)|worker/.test(name) && !had.has(name))
      pieces.set(name.replace(/-[\w-]{8}\.js$/, ''), name);
  const added = new Map<string, number>();
  for (const [piece, name] of pieces) {
    const all = await withImports(assets, name);
    const around = pieces.get(within.get(piece) ?? '');
    const whole = around === undefined ? all : await withImports(assets, around, new Set(all));
    const more = [...whole].filter((each) => !had.has(each));
    const bytes = await Promise.all(more.map((each) => gzipped(join(assets, each))));
    added.set(
      piece,
      bytes.reduce((sum, each) => sum + each),
    );
  }
  return added;
}
