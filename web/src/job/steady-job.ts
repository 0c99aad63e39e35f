import { copyWithStructuralSharing } from '@reduxjs/toolkit/query';
import type { Job } from '@fairwatt/core';

/** The clocks of a screen and of its server are taken for one within so much. */
const clockMilliseconds = 60_000;

/**
 * A job as it stands now, in which everything that did not change is the same object as before. A few seconds in the
 * time at which it was saved make no other job: an answer that says what the screen shows already has nothing reckoned
 * or drawn anew.
 */
export function steadyJob(before: Job, now: Job): Job {
  const { updatedAt } = before;
  const isNear = Math.abs(Date.parse(now.updatedAt) - Date.parse(updatedAt)) < clockMilliseconds;
  const shared = copyWithStructuralSharing(before, isNear ? { ...now, updatedAt } : now);
  return shared === before ? before : { ...shared, updatedAt: now.updatedAt };
}
