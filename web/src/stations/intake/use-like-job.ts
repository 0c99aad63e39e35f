import { useState } from 'react';
import { likeEarlier } from '@fairwatt/core';
import { api, problemOf } from '../../app/api.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useDesk } from '../../job/job-context.ts';
import { newPartId } from './new-part-id.ts';
import { useTakingIn } from './use-taking-in.ts';

/** Takes the machine of another job over; says why where it could not be fetched. */
export function useLikeJob(): {
  readonly take: (code: string) => Promise<void>;
  readonly problem: string | null;
} {
  const { job, shop } = useDesk();
  const dispatch = useAppDispatch();
  const takeIn = useTakingIn();
  const [problem, setProblem] = useState<string | null>(null);
  async function take(code: string): Promise<void> {
    setProblem(null);
    try {
      const earlier = await dispatch(api.endpoints.job.initiate(code, { subscribe: false })).unwrap();
      const fitted = shop.supplies.find(({ id }) => id === earlier.choice?.modelId) ?? null;
      takeIn(likeEarlier(earlier, fitted, job, newPartId));
    } catch (error) {
      setProblem(`${code} could not be fetched: ${problemOf(error).title}`);
    }
  }
  return { take, problem };
}
