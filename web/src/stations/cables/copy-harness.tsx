import { copiedHarness, harnessOf, viewJob } from '@fairwatt/core';
import { EarlierJob } from '../../job/earlier-job.tsx';
import { useDesk } from '../../job/job-context.ts';
import { useOtherJob } from '../../job/use-other-job.ts';

/** Takes the cables of another job's machine over, as likely ones. */
export function CopyHarness() {
  const { job, shop, act } = useDesk();
  const other = useOtherJob((earlier) => {
    const source = harnessOf(earlier, viewJob(earlier, shop).cabling);
    const cables = copiedHarness(source, job, () => crypto.randomUUID());
    for (const cable of cables) act({ kind: 'put-cable', cable, basedOn: 0 });
    return cables.length === 0 ? `${earlier.code} has no cable to an inlet that is open here.` : null;
  });
  return <EarlierJob label="Cables as in another job" {...other} />;
}
