import { refusalText, type Job } from '@fairwatt/core';
import { jobCode, jobSchema } from '@fairwatt/contract';
import { HttpProblem } from '../problems.ts';
import type { Stop } from './acting.ts';
import type { IdTaken } from './store.ts';

export const noJob = (code: string) =>
  new HttpProblem(404, 'no-such-job', `There is no job ${code}`, {
    errors: [{ path: 'code', message: 'no such job' }],
  });
export const idTaken = () =>
  new HttpProblem(409, 'id-taken', 'This id was used for something else already; nothing was done', {
    errors: [{ path: 'id', message: 'was used for something else' }],
  });

/** @throws HttpProblem where the id was used for something else */
export function known<T extends { readonly kind: string }>(outcome: T | IdTaken): Exclude<T, IdTaken> {
  if (outcome.kind === 'id-taken') throw idTaken();
  return outcome as Exclude<T, IdTaken>;
}

/** A job's code from an address; what does not look like one is no job. */
export function codeOf(value: unknown): string {
  const parsed = jobCode.safeParse(value);
  if (!parsed.success) throw noJob(String(value).slice(0, 20));
  return parsed.data;
}

/** Why an act was not done, and how the job stands. */
export function stopped(stop: Stop, job: Job): HttpProblem {
  if (stop.kind === 'id-taken') return idTaken();
  const { refusal, changed } = stop;
  const status = refusal.code === 'unknown-reference' ? 422 : refusal.code === 'not-found' ? 404 : 409;
  return new HttpProblem(status, refusal.code, refusalText(refusal), {
    refusal,
    changed: changed ?? undefined,
    current: jobSchema.parse(job),
    errors: refusal.code === 'unknown-reference' ? [{ path: refusal.path, message: 'is not known here' }] : [],
  });
}
