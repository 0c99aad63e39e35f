import { defineConfig } from 'vitest/config';

/** The tests that `npm run mutation` runs against each mutant: none of them needs a database, a browser or a process. */
export default defineConfig({
  resolve: { conditions: ['fairwatt-source'] },
  ssr: { resolve: { conditions: ['fairwatt-source'] } },
  test: { include: (process.env['FAIRWATT_MUTATION_TESTS'] ?? '').split(' '), testTimeout: 300_000 },
});
