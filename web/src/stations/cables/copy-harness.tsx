import { useState } from 'react';
import { copiedHarness, harnessOf, viewJob } from '@fairwatt/core';
import { api, problemOf } from '../../app/api.ts';
import { useAppDispatch } from '../../app/store.ts';
import { EarlierJob } from '../../job/earlier-job.tsx';
import { useDesk } from '../../job/job-context.ts';

/** Takes the cables of another job's machine over, as likely ones. */
export function CopyHarness() {
  const { job, shop, act } = useDesk();
  const dispatch = useAppDispatch();
  const [told, setTold] = useState<string | null>(null);

  async function take(code: string): Promise<void> {
    setTold(null);
    try {
      const earlier = await dispatch(api.endpoints.job.initiate(code, { subscribe: false })).unwrap();
      const source = harnessOf(earlier, viewJob(earlier, shop).cabling);
      const cables = copiedHarness(source, job, () => crypto.randomUUID());
      for (const cable of cables) act({ kind: 'put-cable', cable, basedOn: 0 });
      if (cables.length === 0) setTold(`${code} has no cable to an inlet that is open here.`);
    } catch (error) {
      setTold(`${code} could not be fetched: ${problemOf(error).title}`);
    }
  }

  return (
    <>
      <EarlierJob label="Cables as in another job" onPick={(code) => void take(code)} />
      {told !== null && (
        <span className="error-text" role="alert">
          {told}
        </span>
      )}
    </>
  );
}
