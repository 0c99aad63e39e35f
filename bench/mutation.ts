// Whether the tests would notice a fault in what must not fail: npm run mutation [group ...]. Each statement, condition
// and figure of a file is changed in turn, and the group's tests are to fail. It takes minutes to an hour and is no part
// of the test command.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { LogLevel } from '@stryker-mutator/api/core';
import { Stryker } from '@stryker-mutator/core';

interface Group {
  readonly mutated: readonly string[];
  readonly tests: readonly string[];
}

const offline: Group['tests'] = ['outbox', 'outbox-edges', 'sender', 'sender-edges', 'two-tabs'].map(
  (name) => `web/src/offline/${name}.test.ts`,
);
const groups: Readonly<Record<string, Group>> = {
  verdict: { mutated: ['core/src/measure/verdict.ts'], tests: ['core/src/measure/verdict*.test.ts'] },
  posterior: {
    mutated: ['core/src/diagnose/model.ts', 'core/src/diagnose/damping.ts'],
    tests: ['core/src/diagnose/{model,compiled,damping,machine-model,trust,learn}.test.ts'],
  },
  demand: { mutated: ['core/src/load/demand.ts'], tests: ['core/src/load/*.test.ts'] },
  check: {
    mutated: ['core/src/cable/check.ts'],
    tests: ['core/src/cable/check.test.ts'],
  },
  crossing: { mutated: ['core/src/cable/crossing.ts'], tests: ['core/src/cable/crossing.test.ts'] },
  acts: { mutated: ['core/src/job/apply-act.ts', 'core/src/job/acts/*.ts'], tests: ['core/src/job/*.test.ts'] },
  outbox: { mutated: ['web/src/offline/outbox.ts'], tests: offline },
  sender: { mutated: ['web/src/offline/sender.ts'], tests: offline },
};

/** What is wanted of each group, in percent of its mutants. */
const leastKilled = 85;
const root = fileURLToPath(new URL('..', import.meta.url));
const state = join(root, '.fairwatt');

/** A mutant that no test noticed, with where it stands. */
interface Survivor {
  readonly place: string;
  readonly kind: string;
  readonly replacement: string;
  readonly why: string;
}

async function run({ mutated, tests }: Group): Promise<{ killed: number; all: number; survivors: Survivor[] }> {
  process.env['FAIRWATT_MUTATION_TESTS'] = tests.join(' ');
  const results = await new Stryker({
    testRunner: 'vitest',
    plugins: ['@stryker-mutator/vitest-runner'],
    vitest: { configFile: 'bench/mutation-vitest.ts', related: false },
    mutate: [...mutated],
    ignorePatterns: ['/docs', '/e2e', '/.fairwatt', '/web/dist', 'dist'],
    coverageAnalysis: 'perTest',
    concurrency: 2,
    timeoutMS: 10_000,
    reporters: [],
    logLevel: 'error' as LogLevel,
    tempDirName: join(state, `mutation-${process.pid}`),
    allowConsoleColors: false,
  }).runMutationTest();
  // What does not compile or cannot be reached by a test's file is no mutant.
  const counted = results.filter(({ status }) => !['CompileError', 'RuntimeError', 'Ignored'].includes(status));
  const survivors = counted.filter(({ status }) => status === 'Survived' || status === 'NoCoverage');
  return {
    all: counted.length,
    killed: counted.length - survivors.length,
    survivors: survivors.map(({ fileName, location, mutatorName, replacement, status }) => ({
      place: `${fileName.slice(fileName.search(/core\/src|web\/src/))}:${location.start.line}:${location.start.column}`,
      kind: mutatorName,
      replacement: replacement.replaceAll(/\s+/g, ' ').slice(0, 100),
      why: status === 'NoCoverage' ? 'no test comes here' : 'no test minds',
    })),
  };
}

const wanted = process.argv.slice(2);
for (const name of wanted)
  if (groups[name] === undefined) throw new Error(`“${name}” is none of ${Object.keys(groups).join(', ')}`);
mkdirSync(state, { recursive: true });
let tooFew = false;
for (const [name, group] of Object.entries(groups)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  const { killed, all, survivors } = await run(group);
  const share = (100 * killed) / all;
  tooFew ||= share < leastKilled;
  const path = join(state, `mutation-${name}.txt`);
  writeFileSync(
    path,
    survivors.map(({ place, kind, replacement, why }) => `${place} ${kind} (${why}): ${replacement}\n`).join(''),
  );
  process.stdout.write(
    `${name}: ${killed} of ${all} mutants killed, ${share.toFixed(1)} %; the others are in ${path}\n`,
  );
}
process.exitCode = tooFew ? 1 : 0;
