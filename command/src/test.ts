import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './build.ts';
import { root, stateDirectory } from './paths.ts';
import { startCluster, stopCluster } from './cluster/index.ts';
import { testCluster } from './clusters.ts';
import { takeLock } from './lock.ts';
import { chromiumProgram } from './system.ts';

const bin = (path: string) => join(root, 'node_modules', path);

function check(name: string, args: readonly string[], env: NodeJS.ProcessEnv = {}): Promise<boolean> {
  const begun = Date.now();
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [...args], { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
    child.on('exit', (code) => {
      process.stdout.write(
        `${code === 0 ? 'ok    ' : 'FAILED'} ${name} (${((Date.now() - begun) / 1000).toFixed(1)} s)\n`,
      );
      resolve(code === 0);
    });
  });
}

/** What the tests say of themselves: how many passed, how many failed, and which, a line each. */
interface Counts {
  readonly passed: number;
  readonly failed: number;
  readonly broken: readonly string[];
}

/** What is asked of the sources as they stand; it needs nothing built, and runs beside the tests. */
const standingChecks = (): readonly (readonly [string, readonly string[]])[] => [
  ['lint', [bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0']],
  ['unused', [bin('knip/bin/knip.js'), '--no-progress']],
  ['format', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']],
  [
    'layers',
    [
      bin('dependency-cruiser/bin/dependency-cruise.mjs'),
      '--config',
      '.dependency-cruiser.cjs',
      ...['core', 'contract', 'instruments', 'server', 'web', 'command'].map((workspace) => `${workspace}/src`),
    ],
  ],
];

/** Does checks one after the other: all at once they would take the machine from what is built and tried meanwhile. */
async function oneByOne(checks: readonly (readonly [string, readonly string[]])[]): Promise<readonly boolean[]> {
  const results: boolean[] = [];
  for (const [name, program] of checks) results.push(await check(name, program));
  return results;
}

/**
 * Types, lint, layers, then unit, integration and end-to-end tests on the built application. Those that failed are
 * named at the end; the last line counts them all.
 */
export async function test(args: readonly string[]): Promise<number> {
  mkdirSync(stateDirectory, { recursive: true });
  chromiumProgram();
  const lock = takeLock(join(stateDirectory, 'test-lock'));
  if (lock === null) {
    process.stderr.write('The tests of this checkout are running already.\n');
    return 1;
  }
  const counts = join(stateDirectory, 'test-counts.json');
  rmSync(counts, { force: true });
  let passed = 0;
  let failed = 0;
  const broken: string[] = [];
  const note = (ok: boolean) => {
    if (ok) passed += 1;
    else failed += 1;
  };
  const beside = oneByOne(standingChecks());
  try {
    note(await check('types', [bin('typescript/bin/tsc'), '-b']));
    await build((line) => process.stdout.write(`${line}\n`));
    const url = (await startCluster(testCluster())).url('postgres');
    const ran = await check('tests', [bin('vitest/vitest.mjs'), 'run', ...args], {
      FAIRWATT_TEST_DATABASE: url,
      FAIRWATT_TEST_COUNTS: counts,
    });
    if (existsSync(counts)) {
      const found = JSON.parse(readFileSync(counts, 'utf8')) as Counts;
      broken.push(...found.broken);
      passed += found.passed;
      failed += found.failed;
      if (!ran && found.failed === 0) failed += 1;
    } else failed += 1;
  } catch (error) {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
    failed += 1;
  } finally {
    stopCluster(testCluster());
    lock.release();
  }
  for (const ok of await beside) note(ok);
  for (const line of broken) process.stdout.write(`failed: ${line}\n`);
  process.stdout.write(`${passed} passed, ${failed} failed\n`);
  return failed === 0 ? 0 : 1;
}
