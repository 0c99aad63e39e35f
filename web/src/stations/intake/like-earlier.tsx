import { EarlierJob } from '../../job/earlier-job.tsx';
import { useLikeJob } from './use-like-job.ts';

/** Takes over the machine of an earlier job. */
export function LikeEarlier() {
  return <EarlierJob label="Like an earlier machine" {...useLikeJob()} />;
}
