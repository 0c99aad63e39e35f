import type { Reporter, TestModule } from 'vitest/node';

/** Prints the counts as the last line, in a form that any runner can read. */
export default class LastLineReporter implements Reporter {
  onTestRunEnd(modules: readonly TestModule[], errors: readonly unknown[]): void {
    let passed = 0;
    let failed = errors.length;
    for (const module of modules) {
      if (module.state() === 'failed' && [...module.children.allTests()].every((test) => test.result().state !== 'failed')) failed += 1;
      for (const test of module.children.allTests()) {
        const state = test.result().state;
        if (state === 'passed') passed += 1;
        else if (state === 'failed') failed += 1;
      }
    }
    process.on('exit', () => console.log(`${passed} passed, ${failed} failed`));
  }
}
