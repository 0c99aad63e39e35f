import type { Job } from '@fairwatt/core';
import { jobSchema } from '@fairwatt/contract';

const texts = new WeakMap<Job, string>();

/** A job as it is sent, in its schema; written once for a job that is kept. */
export function jobText(job: Job): string {
  const known = texts.get(job);
  if (known !== undefined) return known;
  const text = JSON.stringify(jobSchema.parse(job));
  texts.set(job, text);
  return text;
}
