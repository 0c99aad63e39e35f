import { writeFileSync } from 'node:fs';
import type { Reporter, TestModule } from 'vitest/node';

/** Counts the tests: into the file the test command names, else as the last line. */
export default class LastLineReporter implements Reporter {
  onTestRunEnd(modules: readonly TestModule[], errors: readonly unknown[]): void {
    let passed = 0;
    let failed = errors.length;
    for (const module of modules) {
      const states = [...module.children.allTests()].map((test) => test.result().state);
      passed += states.filter((state) => state === 'passed').length;
      const broken = states.filter((state) => state === 'failed').length;
      failed += broken;
      if (module.state() === 'failed' && broken === 0) failed += 1;
    }
    const file = process.env['FAIRWATT_TEST_COUNTS'];
    if (file !== undefined) writeFileSync(file, JSON.stringify({ passed, failed }));
    else process.on('exit', () => console.log(`${passed} passed, ${failed} failed`));
  }
}
