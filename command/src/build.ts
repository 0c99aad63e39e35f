import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { root, stateDirectory } from './paths.ts';
import { takeLock } from './lock.ts';
import { run } from './system.ts';

const sources = [
  'core/src',
  'contract/src',
  'server/src',
  'instruments/src',
  'web/src',
  'web/index.html',
  'web/vite.config.ts',
  'web/public',
  'package-lock.json',
  'tsconfig.base.json',
];

function filesBelow(path: string): string[] {
  if (!existsSync(path)) return [];
  const entries = (() => {
    try {
      return readdirSync(path, { withFileTypes: true });
    } catch {
      return null;
    }
  })();
  return entries === null
    ? [path]
    : entries
        .flatMap((entry) => (entry.isDirectory() ? filesBelow(join(path, entry.name)) : [join(path, entry.name)]))
        .sort();
}

function stamp(): string {
  const hash = createHash('sha256').update(process.version);
  for (const file of sources.flatMap((source) => filesBelow(join(root, source))))
    hash.update(relative(root, file)).update('\0').update(readFileSync(file)).update('\0');
  return hash.digest('hex');
}

/** Builds core, contract, server and screens, unless what is built was made from exactly these sources. */
export async function build(say: (text: string) => void): Promise<void> {
  // Two builds at once would write the same files.
  const lock = takeLock(join(stateDirectory, 'build-lock'), true);
  try {
    await buildHere(say);
  } finally {
    lock?.release();
  }
}

async function buildHere(say: (text: string) => void): Promise<void> {
  const path = join(stateDirectory, 'build-stamp');
  const wanted = stamp();
  const done =
    existsSync(path) &&
    readFileSync(path, 'utf8') === wanted &&
    existsSync(join(root, 'web/dist/index.html')) &&
    existsSync(join(root, 'server/dist/main.js')) &&
    existsSync(join(root, 'instruments/dist/main.js'));
  if (done) return;
  say('Building ...');
  await run(process.execPath, [join(root, 'node_modules/@typescript/native/bin/tsc'), '-b', 'server', 'instruments'], {
    cwd: root,
    quiet: true,
  });
  // Whoever asks: tests set NODE_ENV to their own, and would get the library's slow development build.
  await run(process.execPath, [join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'], {
    cwd: join(root, 'web'),
    env: { ...process.env, NODE_ENV: 'production' },
    quiet: true,
  });
  mkdirSync(stateDirectory, { recursive: true });
  writeFileSync(path, wanted);
}
