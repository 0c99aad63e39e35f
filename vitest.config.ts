import { defineConfig } from 'vitest/config';
import LongFirst from './tests/long-first.ts';

const conditions = ['fairwatt-source'];

/**
 * Ends a test that hangs, in milliseconds. It says nothing of how fast anything is: a machine that is busy with other
 * work may take ten times what a test takes here.
 */
const hanging = 300_000;
export default defineConfig({
  resolve: { conditions },
  ssr: { resolve: { conditions } },
  test: {
    reporters: ['default', './tests/last-line-reporter.ts'],
    sequence: { sequencer: LongFirst },
    testTimeout: hanging,
    hookTimeout: hanging,
    expect: { poll: { timeout: 60_000 } },
    projects: [
      {
        extends: true,
        test: {
          name: 'unit',
          include: [
            'core/src/**/*.test.ts',
            'contract/src/**/*.test.ts',
            'instruments/src/**/*.test.ts',
            'command/src/**/*.test.ts',
            'web/src/**/*.test.ts',
          ],
          // The core has no state of its own: its modules are read once for a worker, not once for a file.
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: 'integration',
          include: ['server/src/**/*.test.ts', 'tests/**/*.test.ts'],
          exclude: ['tests/operations/**'],
          globalSetup: ['tests/database.ts'],
          // A server's modules have no state of their own either: each is made with its parts.
          isolate: false,
          // Each file has its own database, most of them wait for it more than they reckon.
          maxWorkers: 2,
          sequence: { groupOrder: 1 },
        },
      },
      {
        extends: true,
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          globalSetup: ['tests/database.ts'],
          // Each file has its own server and database; they come last, so that two browsers have the machine to
          // themselves.
          maxWorkers: 2,
          sequence: { groupOrder: 2 },
        },
      },
      {
        extends: true,
        test: {
          name: 'operations',
          include: ['tests/operations/**/*.test.ts'],
          globalSetup: ['tests/database.ts'],
          // They start, kill, move and restore whole applications, and wait for them most of the time: the test
          // command does them beside all others.
          maxWorkers: 2,
          sequence: { groupOrder: 4 },
        },
      },
      {
        extends: true,
        test: {
          name: 'bench',
          include: ['bench/**/*.test.ts'],
          // Here they are only seen to run: what they measure is for a machine that has nothing else to do.
          maxWorkers: 2,
          sequence: { groupOrder: 2 },
        },
      },
    ],
  },
});
