import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** The files that take longest on two cores, the longest first. */
const longest = [
  'e2e/layout.test.ts',
  'e2e/intake.test.ts',
  'bench/benches.test.ts',
  'e2e/bad-days.test.ts',
  'e2e/delivery.test.ts',
  'e2e/other-jobs.test.ts',
  'e2e/load-and-replacement.test.ts',
  'e2e/whole-job.test.ts',
  'e2e/measure.test.ts',
  'tests/operations/drill.test.ts',
  'tests/operations/backup.test.ts',
  'tests/operations/data-folder.test.ts',
  'tests/instruments.test.ts',
  'command/src/compute.test.ts',
];

const rank = ({ moduleId }: TestSpecification): number => {
  const found = longest.findIndex((file) => moduleId.endsWith(`/${file}`));
  return found < 0 ? longest.length : found;
};

/** Begins with what takes longest, so that no long file runs on alone at the end while a core stands idle. */
export default class LongFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    return [...(await super.sort(files))].sort((a, b) => rank(a) - rank(b));
  }
}
