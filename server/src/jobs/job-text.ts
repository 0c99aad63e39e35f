import type { z } from 'zod';
import type { Job } from '@fairwatt/core';
import { jobSchema } from '@fairwatt/contract';

/** A piece of a job, such as its readings: what stands under one of its names. */
type Piece = keyof Job;

const names = Object.keys(jobSchema.shape) as Piece[];
/** What was written of each piece that is a list or an object; an act leaves most of them the very ones they were. */
const written = new Map<Piece, WeakMap<object, string>>(names.map((name) => [name, new WeakMap()]));
const whole = new WeakMap<Job, string>();

/** A piece in its schema; undefined where it has none. */
function pieceText(name: Piece, value: Job[Piece]): string | undefined {
  const known = typeof value === 'object' && value !== null ? written.get(name) : undefined;
  const before = known?.get(value as object);
  if (before !== undefined) return before;
  const schema: z.ZodType = jobSchema.shape[name];
  const text = JSON.stringify(schema.parse(value)) as string | undefined;
  if (text !== undefined) known?.set(value as object, text);
  return text;
}

/**
 * A job as it is sent, in its schema; written once for a job that is kept, and after an act only what the act changed.
 * @throws ZodError where the job is not in its schema
 */
export function jobText(job: Job): string {
  const known = whole.get(job);
  if (known !== undefined) return known;
  // What the schema does not know is refused by the whole of it, with its name.
  if (Object.keys(job).some((name) => !(name in jobSchema.shape))) jobSchema.parse(job);
  const pieces = names.flatMap((name) => {
    const text = pieceText(name, job[name]);
    return text === undefined ? [] : [`${JSON.stringify(name)}:${text}`];
  });
  const text = `{${pieces.join(',')}}`;
  whole.set(job, text);
  return text;
}
