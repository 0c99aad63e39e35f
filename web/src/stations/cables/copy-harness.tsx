import { copiedHarness, harnessOf, viewJob } from '@fairwatt/core';
import { CopyFromJob } from '../../job/copy-from-job.tsx';
import { useDesk } from '../../job/job-context.ts';

/** Takes the cables of another job's machine over, as likely ones. */
export function CopyHarness() {
  const { job, shop, act } = useDesk();
  return (
    <CopyFromJob
      label="Cables as in another job"
      nothing="has no cable to an inlet that is open here."
      onTake={(earlier) => {
        const source = harnessOf(earlier, viewJob(earlier, shop).cabling);
        const cables = copiedHarness(source, job, () => crypto.randomUUID());
        for (const cable of cables) act({ kind: 'put-cable', cable, basedOn: 0 });
        return cables.length;
      }}
    />
  );
}
