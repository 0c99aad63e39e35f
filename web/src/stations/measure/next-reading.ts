import { recordReading, type Job, type JobView, type NextReading, type Phase } from '@fairwatt/core';

/** The reading that is worth most now: for the search while it goes on, then for the record. */
export function nextReadingOf(job: Job, view: JobView, phase: Phase): NextReading | null {
  return phase === 'before' && job.finding === null
    ? view.nextReading
    : recordReading(view[phase].verdicts, phase === 'after' ? true : null);
}
