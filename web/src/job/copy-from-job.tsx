import { useState } from 'react';
import type { Job } from '@fairwatt/core';
import { api, problemOf } from '../app/api.ts';
import { useAppDispatch } from '../app/store.ts';
import { EarlierJob } from './earlier-job.tsx';

/** Takes something over from another job, found by words. */
export function CopyFromJob({
  label,
  nothing,
  onTake,
}: {
  readonly label: string;
  /** What is said, behind the job's code, where there was nothing to take. */
  readonly nothing: string;
  /** Takes it over; returns how many there were. */
  readonly onTake: (earlier: Job) => number;
}) {
  const dispatch = useAppDispatch();
  const [told, setTold] = useState<string | null>(null);

  async function take(code: string): Promise<void> {
    setTold(null);
    try {
      const earlier = await dispatch(api.endpoints.job.initiate(code, { subscribe: false })).unwrap();
      if (onTake(earlier) === 0) setTold(`${code} ${nothing}`);
    } catch (error) {
      setTold(`${code} could not be fetched: ${problemOf(error).title}`);
    }
  }

  return (
    <>
      <EarlierJob label={label} onPick={(code) => void take(code)} />
      {told !== null && (
        <span className="error-text" role="alert">
          {told}
        </span>
      )}
    </>
  );
}
