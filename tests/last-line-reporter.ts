import { writeFileSync } from 'node:fs';
import type { Reporter, SerializedError, TestModule } from 'vitest/node';

const told = 240;

/** Where a test stands, its name, and the first words of what went wrong, in one line. */
const lineOf = (where: string, errors: readonly { readonly message: string }[]): string =>
  `${where}: ${(errors[0]?.message ?? 'no error was told').replaceAll(/\s+/g, ' ')}`.slice(0, told);

function brokenIn(module: TestModule): readonly string[] {
  const tests = [...module.children.allTests('failed')];
  const lines = tests.map((test) =>
    lineOf(`${module.relativeModuleId} > ${test.fullName}`, test.result().errors ?? []),
  );
  return module.state() === 'failed' && lines.length === 0 ? [lineOf(module.relativeModuleId, module.errors())] : lines;
}

/**
 * Counts the tests and names those that failed: into the file the test command names, else as the last lines. What is
 * read of a long run is its end.
 */
export default class LastLineReporter implements Reporter {
  onTestRunEnd(modules: readonly TestModule[], errors: readonly SerializedError[]): void {
    const states = modules.flatMap((module) => [...module.children.allTests('passed')]);
    const broken = [...modules.flatMap(brokenIn), ...errors.map((error) => lineOf('outside of any test', [error]))];
    const counts = { passed: states.length, failed: broken.length, broken };
    const file = process.env['FAIRWATT_TEST_COUNTS'];
    if (file !== undefined) writeFileSync(file, JSON.stringify(counts));
    else
      process.on('exit', () => {
        console.log([...broken, `${counts.passed} passed, ${counts.failed} failed`].join('\n'));
      });
  }
}
