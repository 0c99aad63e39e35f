import { describe, expect, it } from 'vitest';
import { TestBench, testPart } from './fixture.test-help.ts';
import {
  basedOnStanding,
  jobLimits,
  overfull,
  roomFor,
  standingOutcome,
  subjectOf,
  takesAway,
  versionAt,
  withBase,
  type Act,
} from './index.ts';

const uuid = (number: number) => `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`;

describe('what an act is about', () => {
  it('is one thing for all acts that can meet on it', () => {
    const put: Act = { kind: 'put-part', part: testPart('board', 'b'), basedOn: 0 };
    expect(subjectOf(put)).toBe(subjectOf({ kind: 'drop-part', partId: 'b', basedOn: 1 }));
    expect(subjectOf({ kind: 'tick-step', stepId: 's' })).toBe(subjectOf({ kind: 'untick-step', stepId: 's' }));
    expect(subjectOf({ kind: 'close', basedOn: 1 })).toBe(subjectOf({ kind: 'reopen', basedOn: 1 }));
  });
  it('has the revision of its last change as version, and none where nothing stands', () => {
    const bench = new TestBench();
    expect(versionAt(bench.job, 'part:b')).toBe(0);
    bench.part('board', 'b');
    expect(versionAt(bench.job, 'part:b')).toBe(bench.job.revision);
    bench.do({ kind: 'edit-sheet', changes: { client: 'Other' }, basedOn: 0 });
    expect(versionAt(bench.job, 'part:b')).toBe(bench.job.revision - 1);
    expect(versionAt(bench.job, 'sheet')).toBe(bench.job.revision);
    bench.do({ kind: 'drop-part', partId: 'b', basedOn: 0 });
    expect(versionAt(bench.job, 'part:b')).toBe(0);
    expect(versionAt(bench.job, 'nothing:at-all')).toBe(0);
  });
  it('is gone after an act that takes it away', () => {
    expect(takesAway({ kind: 'drop-cable', cableId: uuid(1), basedOn: 1 })).toBe(true);
    expect(takesAway({ kind: 'set-finding', finding: null, basedOn: 1 })).toBe(true);
    expect(takesAway({ kind: 'put-part', part: testPart('board', 'b'), basedOn: 0 })).toBe(false);
  });
});

describe('somebody who sees the job as it stands', () => {
  it('bases his act on it, and replaces the answer that he sees', () => {
    const bench = new TestBench().part('board', 'b');
    const put: Act = { kind: 'put-part', part: testPart('board', 'b'), basedOn: 99 };
    expect(basedOnStanding(put, bench.job)).toEqual(withBase(put, bench.job.revision));
    const note: Act = { kind: 'note-outcome', id: uuid(1), checkId: 'look-dust', outcomeId: 'clean' };
    expect(basedOnStanding(note, bench.job)).toEqual({ ...note, instead: null });
    bench.do(note);
    expect(standingOutcome(bench.job, 'look-dust')).toBe(uuid(1));
    bench.do({ kind: 'take-back-outcome', id: uuid(1) });
    expect(standingOutcome(bench.job, 'look-dust')).toBeNull();
  });
});

describe('how much a job holds', () => {
  it('is told before it is reached, and refuses only what would go past it', () => {
    const bench = new TestBench();
    expect(roomFor(bench.job, 'cables')).toBe(jobLimits.cables);
    const full = {
      ...bench.job,
      steps: Array.from({ length: jobLimits.steps + 5 }, (_, step) => ({ stepId: `${step}`, by: 'mara', at: '' })),
    };
    // A job that came from elsewhere with more than that can be worked on, and shrinks.
    expect(overfull(full, { ...full, steps: full.steps.slice(1) })).toBeNull();
    expect(overfull(full, { ...full, steps: [...full.steps, full.steps[0]!] })).toBe('steps');
    expect(roomFor(full, 'steps')).toBe(0);
  });
});
