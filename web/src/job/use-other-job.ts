import { useState } from 'react';
import type { Job } from '@fairwatt/core';
import { api, problemOf } from '../app/api.ts';
import { useAppDispatch } from '../app/store.ts';

/**
 * Takes something over from another job. @param onTake given that job; returns what is to be told, or null
 * @returns `take` by its code, and what went wrong or is to be told
 */
export function useOtherJob(onTake: (other: Job) => string | null): {
  readonly take: (code: string) => Promise<void>;
  readonly told: string | null;
} {
  const dispatch = useAppDispatch();
  const [told, setTold] = useState<string | null>(null);
  async function take(code: string): Promise<void> {
    setTold(null);
    try {
      setTold(onTake(await dispatch(api.endpoints.job.initiate(code, { subscribe: false })).unwrap()));
    } catch (error) {
      setTold(`${code} could not be fetched: ${problemOf(error).title}`);
    }
  }
  return { take, told };
}
