import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { applyAct, newJob, type Job } from '@fairwatt/core';
import { jobFileSchema, jobSchema, presentJobFile } from '@fairwatt/contract';
import { actsFor } from '../../../tests/job-acts.ts';
import { jobText } from './job-text.ts';

const folder = new URL('../../../demo/jobs/', import.meta.url);
const files = readdirSync(folder).filter((name) => name.endsWith('.json'));
const readJob = (name: string): Job =>
  jobFileSchema.parse(presentJobFile(JSON.parse(readFileSync(new URL(name, folder), 'utf8')))).job;
const inSchema = (job: Job) => JSON.stringify(jobSchema.parse(job));
const yes = () => true;

describe('a job as it is sent', () => {
  it.each(files)('is what its schema makes of the whole of it: %s, after each act that makes it', (name) => {
    let job = newJob('LQ-0001', 'Machine', '', '', 'peaks-covered', '2026-01-01T00:00:00.000Z');
    let taken = 0;
    for (const act of actsFor(readJob(name))) {
      const result = applyAct(job, act, {
        by: 'mara',
        at: '2026-01-01T00:00:00.000Z',
        knows: { instrument: yes, supply: yes, fault: yes, outcome: yes },
        unansweredPoints: () => 0,
      });
      if (!result.ok) continue;
      ({ job } = result);
      taken += 1;
      expect(jobText(job)).toBe(inSchema(job));
    }
    expect(taken).toBeGreaterThan(5);
  });

  it('is refused where it is not in its schema, in a piece or beside them', () => {
    const job = newJob('LQ-0001', 'Machine', '', '', 'peaks-covered', '2026-01-01T00:00:00.000Z');
    expect(() => jobText({ ...job, notes: [{ id: 'no uuid' }] } as unknown as Job)).toThrow(/uuid/i);
    expect(() => jobText({ ...job, secret: 'more' } as unknown as Job)).toThrow(/secret/);
  });
});
