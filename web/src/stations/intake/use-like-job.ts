import { likeEarlier } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { useOtherJob } from '../../job/use-other-job.ts';
import { newPartId } from './new-part-id.ts';
import { useTakingIn } from './use-taking-in.ts';

/** Takes the machine of another job over; says why where it could not be fetched. */
export function useLikeJob(): ReturnType<typeof useOtherJob> {
  const { job, shop } = useDesk();
  const takeIn = useTakingIn();
  return useOtherJob((earlier) => {
    const fitted = shop.supplies.find(({ id }) => id === earlier.choice?.modelId) ?? null;
    takeIn(likeEarlier(earlier, fitted, job, newPartId));
    return null;
  });
}
