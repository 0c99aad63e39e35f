import type { Job } from '@fairwatt/core';

/**
 * Jobs by their stamp, the latest used last. A stamp is never drawn twice, so that what is kept can be old but never
 * wrong.
 */
const jobs = new Map<string, Job>();
const mostKept = 200;

/** The job that goes by this stamp, where it is in memory. */
export function keptJob(stamp: string): Job | null {
  const job = jobs.get(stamp);
  if (job === undefined) return null;
  jobs.delete(stamp);
  jobs.set(stamp, job);
  return job;
}

/** Keeps a job under the stamp of what was committed. */
export function keepJob(stamp: string, job: Job): void {
  jobs.set(stamp, job);
  const [oldest] = jobs.keys();
  if (jobs.size > mostKept && oldest !== undefined) jobs.delete(oldest);
}
