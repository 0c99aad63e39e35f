import { env } from 'node:process';

/**
 * How many cases a test goes through that takes long: some in each run of the tests, all of them where
 * FAIRWATT_FULL_SIZE is 1, as `npm run test:full` has it.
 */
export const casesOf = (some: number, all: number): number => (env['FAIRWATT_FULL_SIZE'] === '1' ? all : some);
