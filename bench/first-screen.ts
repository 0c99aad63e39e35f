import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import { build } from 'vite';

/** Gzipped bytes of the JavaScript and CSS that a built index.html asks for at once. */
async function initialBytes(directory: string): Promise<number> {
  const html = await readFile(join(directory, 'index.html'), 'utf8');
  const files = new Set(
    [...html.matchAll(/(?:src|href)="(\/?[^"]+\.(?:js|css))"/g)].map((match) => match[1]!.replace(/^\.?\//, '')),
  );
  let total = 0;
  for (const file of files) total += gzipSync(await readFile(join(directory, file))).length;
  return total;
}

/** Builds the application and a bare page of the component library in the same run and compares their first screens. */
export async function measureFirstScreen(): Promise<{ readonly ours: number; readonly bare: number }> {
  const scratch = await mkdtemp(join(tmpdir(), 'fairwatt-bench-'));
  try {
    const web = fileURLToPath(new URL('../web', import.meta.url));
    await build({
      root: web,
      configFile: join(web, 'vite.config.ts'),
      logLevel: 'error',
      build: { outDir: join(scratch, 'ours'), emptyOutDir: true },
    });
    await build({
      root: fileURLToPath(new URL('./bare-page', import.meta.url)),
      configFile: false,
      logLevel: 'error',
      build: { outDir: join(scratch, 'bare'), emptyOutDir: true },
    });
    return { ours: await initialBytes(join(scratch, 'ours')), bare: await initialBytes(join(scratch, 'bare')) };
  } finally {
    await rm(scratch, { recursive: true, force: true });
  }
}
