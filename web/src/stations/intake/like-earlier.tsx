import { EarlierJob } from '../../job/earlier-job.tsx';
import { useLikeJob } from './use-like-job.ts';

/** Takes over the machine of an earlier job. */
export function LikeEarlier() {
  const { take, problem } = useLikeJob();
  return (
    <>
      <EarlierJob label="Like an earlier machine" onPick={(code) => void take(code)} />
      {problem !== null && (
        <span className="error-text" role="alert">
          {problem}
        </span>
      )}
    </>
  );
}
