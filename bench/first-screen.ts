import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'vite';
import { initialBytes } from './screen-weight.ts';

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
