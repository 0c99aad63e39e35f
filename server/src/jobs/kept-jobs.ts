import { LRUCache } from 'lru-cache';
import type { Job } from '@fairwatt/core';

/**
 * Jobs by their stamp, of all shops of this process. A stamp is never drawn twice, so that what is kept can be old but
 * never wrong.
 */
const jobs = new LRUCache<string, Job>({ max: 400 });

/** The job that goes by this stamp, where it is in memory. */
export const keptJob = (stamp: string): Job | null => jobs.get(stamp) ?? null;

/** Keeps a job under the stamp of what was committed. */
export function keepJob(stamp: string, job: Job): void {
  jobs.set(stamp, job);
}
