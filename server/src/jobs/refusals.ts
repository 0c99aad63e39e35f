import { jobCode } from '@fairwatt/contract';
import { HttpProblem } from '../problems.ts';

export const noJob = (code: string) =>
  new HttpProblem(404, 'no-such-job', `There is no job ${code}`, {
    errors: [{ path: 'code', message: 'no such job' }],
  });
export const idTaken = () =>
  new HttpProblem(409, 'id-taken', 'This id was used for something else already; nothing was done', {
    errors: [{ path: 'id', message: 'was used for something else' }],
  });

/** A job's code from an address; what does not look like one is no job. */
export function codeOf(value: unknown): string {
  const parsed = jobCode.safeParse(value);
  if (!parsed.success) throw noJob(String(value).slice(0, 20));
  return parsed.data;
}
