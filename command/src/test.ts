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
  ['lint', [bin('oxlint/bin/oxlint'), '--max-warnings', '0', '--report-unused-disable-directives']],
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

const counted = (ok: boolean): Counts => ({ passed: ok ? 1 : 0, failed: ok ? 0 : 1, broken: [] });

/**
 * What is run, each by its name: what was asked for, or all tests. Those that start, kill and restore whole
 * applications wait most of the time; others have the machine meanwhile.
 */
const runsOf = (args: readonly string[]): readonly (readonly [string, readonly string[]])[] =>
  args.length > 0
    ? [['tests', args]]
    : [
        ['operations', ['--project', 'operations']],
        ['tests', ['--project', '!operations']],
      ];

/** Runs tests on the cluster at `url` and counts them. A run that ends badly without a failed test counts as one. */
async function runTests(name: string, args: readonly string[], url: string): Promise<Counts> {
  const counts = join(stateDirectory, `${name}-counts.json`);
  rmSync(counts, { force: true });
  const ran = await check(name, [bin('vitest/vitest.mjs'), 'run', ...args], {
    FAIRWATT_TEST_DATABASE: url,
    FAIRWATT_TEST_COUNTS: counts,
  });
  if (!existsSync(counts)) return counted(false);
  const found = JSON.parse(readFileSync(counts, 'utf8')) as Counts;
  return !ran && found.failed === 0 ? { ...found, failed: 1 } : found;
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
  const results: Counts[] = [];
  const beside = oneByOne(standingChecks());
  try {
    results.push(counted(await check('types', [bin('@typescript/native/bin/tsc'), '-b'])));
    await build((line) => process.stdout.write(`${line}\n`));
    const url = (await startCluster(testCluster())).url('postgres');
    results.push(...(await Promise.all(runsOf(args).map(([name, given]) => runTests(name, given, url)))));
  } catch (error) {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
    results.push(counted(false));
  } finally {
    stopCluster(testCluster());
    lock.release();
  }
  results.push(...(await beside).map(counted));
  for (const line of results.flatMap(({ broken }) => broken)) process.stdout.write(`failed: ${line}\n`);
  const sum = (of: 'passed' | 'failed') => results.reduce((total, result) => total + result[of], 0);
  process.stdout.write(`${sum('passed')} passed, ${sum('failed')} failed\n`);
  return sum('failed') === 0 ? 0 : 1;
}
