import { describe, expect, it } from 'vitest';
import { applyAct, newJob, type Job } from '@fairwatt/core';
import { steadyJob } from './steady-job.ts';

const knows = { instrument: () => true, supply: () => true, fault: () => true, outcome: () => true };
const start = newJob('LQ-0001', 'Machine', 'Client', 'Words', 'peaks-covered', '2026-01-01T09:00:00.000Z');

/** The machine's name changed, as somebody's screen or the server has it. */
function renamed(title: string, at: string): Job {
  const act = { kind: 'edit-sheet', changes: { title }, basedOn: 0 } as const;
  const result = applyAct(start, act, { by: 'mara', at, knows, unansweredPoints: () => 0 });
  if (!result.ok) throw new Error(result.refusal.code);
  return result.job;
}
/** As it comes over the network. */
const sent = (job: Job): Job => JSON.parse(JSON.stringify(job)) as Job;

describe('the job on the desk', () => {
  const here = renamed('Tower', '2026-01-01T09:05:00.000Z');

  it('is the same when the server says what the screen shows already, a moment later by its own clock', () => {
    expect(steadyJob(here, sent(renamed('Tower', '2026-01-01T09:05:02.500Z')))).toBe(here);
    expect(steadyJob(here, sent(renamed('Tower', '2026-01-01T09:04:58.000Z')))).toBe(here);
  });
  it('is another when the two clocks are not one, so that a wrong one is seen', () => {
    const there = renamed('Tower', '2026-01-01T09:06:00.000Z');
    const shown = steadyJob(here, sent(there));
    expect(shown).not.toBe(here);
    expect(shown).toEqual(there);
  });
  it('is another when anything else came, and what did not change in it is the same object', () => {
    const there = renamed('Desktop', '2026-01-01T09:05:02.500Z');
    const shown = steadyJob(here, sent(there));
    expect(shown).toEqual(there);
    expect(shown.parts).toBe(here.parts);
    expect(shown.sheet).not.toBe(here.sheet);
    expect(steadyJob(here, { ...here, revision: here.revision + 1 })).not.toBe(here);
  });
});
