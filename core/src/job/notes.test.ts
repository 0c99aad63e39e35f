import { describe, expect, it } from 'vitest';
import { actText, openPointText, outNowText } from '../wording/index.ts';
import { outNow, stepsOf, type JobNote } from './index.ts';
import { TestBench, testShop, uuid } from './fixture.test-help.ts';

const note = (id: number, text: string, changes: Partial<JobNote> = {}) => ({
  id: uuid(id),
  text,
  photoId: null,
  inReport: false,
  ...changes,
});

describe('notes of a job', () => {
  it('are kept with who and when, changed by whoever saw them, and taken out', () => {
    const on = new TestBench().do({ kind: 'put-note', note: note(1, 'Label scorched at one edge'), basedOn: 0 });
    const [first] = on.job.notes;
    expect(first).toMatchObject({ text: 'Label scorched at one edge', by: 'mara', inReport: false });
    expect(on.job.updatedBy).toBe('mara');
    on.do({ kind: 'put-note', note: note(1, first!.text, { inReport: true }), basedOn: first!.version });
    expect(on.job.notes).toHaveLength(1);
    expect(on.job.notes[0]).toMatchObject({ inReport: true, version: on.job.revision });
    const late = on.try({ kind: 'put-note', note: note(1, 'Else'), basedOn: first!.version });
    expect(late).toMatchObject({ code: 'stale' });
    on.do({ kind: 'drop-note', noteId: uuid(1), basedOn: on.job.notes[0]!.version });
    expect(on.job.notes).toEqual([]);
  });
  it('stand in the history by their words', () => {
    const names = { knowledge: testShop.model.knowledge, part: String, inlet: String, supply: String };
    const told = (changes: Partial<JobNote>) =>
      actText({ kind: 'put-note', note: note(1, 'Case is bent', changes), basedOn: 0 }, names);
    expect(told({})).toBe('Note: Case is bent');
    expect(told({ text: '', photoId: uuid(9), inReport: true })).toBe('Note: a picture, for the report');
  });
});

describe('what is out now', () => {
  it('is each plug that was pulled and not seated again, and each lead', () => {
    const on = new TestBench()
      .part('board', 'board')
      .part('drive-35', 'd1')
      .choose('corvane-650-s')
      .do({ kind: 'put-lead', lead: { id: uuid(5), kind: 'fan', what: 'Fan', place: '', state: 'out' }, basedOn: 0 });
    const now = () => outNow(on.job, on.view().cabling);
    expect(now()).toEqual({ plugs: 0, leads: 1 });
    expect(outNowText(now())).toBe('one lead out now');
    const pulls = stepsOf(on.job, on.view().cabling, 'take-out').filter(({ kind }) => kind === 'unplug');
    expect(pulls.length).toBeGreaterThan(2);
    for (const { id } of pulls) on.do({ kind: 'tick-step', stepId: id });
    expect(now()).toEqual({ plugs: pulls.length, leads: 1 });
    expect(outNowText(now())).toBe(`${pulls.length} plugs and one lead out now`);
    on.seat('d1-1');
    expect(now()).toEqual({ plugs: pulls.length - 1, leads: 1 });
    on.do({ kind: 'mark-leads', leadIds: [uuid(5)], state: 'back' });
    expect(outNowText({ plugs: 0, leads: 0 })).toBe('');
    expect(outNow({ ...on.job, state: 'closed' }, on.view().cabling)).toEqual({ plugs: 0, leads: 0 });
    expect(on.view().openPoints.map(openPointText).join()).not.toContain('Fan is unplugged');
  });
});
