import { describe, expect, it } from 'vitest';
import { newJob, partClasses, type Act, type Job } from '@fairwatt/core';
import { differences } from '../controls/differences.ts';
import { fieldLabel, valueText } from '../controls/field-words.ts';
import { contentOf, standingContent, withTheirs } from './conflict-fields.ts';
import { subjectLabel } from './conflict-words.ts';

const [board] = partClasses;
const part = { id: 'board', classId: board!.id, name: 'Board', quantity: 1, change: 'stays' as const };
const job: Job = {
  ...newJob('LQ-0001', 'Machine', 'Client', 'Words', 'peaks-covered', '2026-01-01T00:00:00.000Z'),
  parts: [{ ...part, figures: board!.figures, inlets: [], version: 3 }],
};
const mine: Extract<Act, { kind: 'put-part' }> = {
  kind: 'put-part',
  part: { ...part, name: 'My board', figures: { ...board!.figures, likelyWatts: 33 }, inlets: [] },
  basedOn: 2,
};

describe('two states of one thing', () => {
  it('differ field by field, down to single figures, and not in what says who and when', () => {
    const fields = differences(contentOf(mine), standingContent(mine, job));
    expect(fields).toEqual([
      { path: 'name', mine: 'My board', theirs: 'Board' },
      { path: 'figures.likelyWatts', mine: 33, theirs: board!.figures.likelyWatts },
    ]);
  });
  it('are put together as they were picked', () => {
    const mixed = withTheirs(mine, job, ['figures.likelyWatts']);
    expect(mixed).toEqual({ ...mine, part: { ...mine.part, figures: board!.figures } });
    expect(withTheirs(mine, job, [])).toEqual(mine);
  });
  it('of a sheet: a field that is left as it stands is not written at all', () => {
    const act: Act = { kind: 'edit-sheet', changes: { client: 'Mine', words: 'Mine too' }, basedOn: 1 };
    expect(withTheirs(act, job, ['client'])).toEqual({ ...act, changes: { words: 'Mine too' } });
  });
  it('where one of them is gone, everything of the other is named', () => {
    expect(standingContent({ ...mine, part: { ...mine.part, id: 'gone' } }, job)).toBeNull();
    expect(differences({ name: 'Mine' }, null)).toEqual([{ path: 'name', mine: 'Mine', theirs: undefined }]);
    expect(contentOf({ kind: 'drop-part', partId: 'board', basedOn: 3 })).toBeNull();
  });
  it('of an answer to a check is the answer that stands', () => {
    const answered: Job = {
      ...job,
      outcomes: [
        {
          id: 'a',
          checkId: 'look-dust',
          outcomeId: 'clean',
          instrumentId: null,
          takenBackAt: null,
          by: 'joss',
          at: job.createdAt,
        },
      ],
    };
    const note: Act = { kind: 'note-outcome', id: 'b', checkId: 'look-dust', outcomeId: 'dusty' };
    expect(differences(contentOf(note), standingContent(note, answered))).toEqual([
      { path: 'outcomeId', mine: 'dusty', theirs: 'clean' },
    ]);
  });
});

describe('what was shown', () => {
  it('is asked about and mixed field by field, as one of two people saw it', () => {
    const base = { subject: 'none', version: 4, by: 'joss', at: job.createdAt } as const;
    const theirs: Job = { ...job, proofs: [{ ...base, item: 'started', holds: false, note: 'Clicks twice' }] };
    const act: Act = { kind: 'note-proof', item: 'started', holds: true, note: '', basedOn: 0 };
    expect(differences(contentOf(act), standingContent(act, theirs)).map(({ path }) => path)).toEqual([
      'holds',
      'note',
    ]);
    expect(withTheirs(act, theirs, ['note'])).toEqual({ ...act, note: 'Clicks twice' });
  });
});

describe('two choices', () => {
  const chosen = (modelId: string, measuredWell: boolean) =>
    ({ kind: 'replace', modelId, reason: '', facts: { of: 'present', measuredWell }, known: [] }) as const;
  const act: Act = { kind: 'set-choice', choice: chosen('mine', true), basedOn: 0 };
  const theirs: Job = {
    ...job,
    choice: { ...chosen('theirs', false), reason: 'Cheaper', version: 4, by: 'joss', at: job.createdAt },
  };
  it('differ in what was chosen and why, not in what was known', () => {
    const found = differences(contentOf(act), standingContent(act, theirs));
    expect(found.map(({ path }) => path)).toEqual(['modelId', 'reason']);
  });
  it('are put together with what was known of the one that is taken', () => {
    expect(withTheirs(act, theirs, ['modelId'])).toEqual({
      ...act,
      choice: { ...chosen('theirs', false), reason: '' },
    });
    expect(withTheirs(act, theirs, ['reason'])).toEqual({
      ...act,
      choice: { ...chosen('mine', true), reason: 'Cheaper' },
    });
  });
});

describe('words of a conflict', () => {
  it('name a field as the screen does, or by its own name in words', () => {
    expect([fieldLabel('client'), fieldLabel('figures.likelyWatts')]).toEqual(['Client', 'Likely watts']);
  });
  it('write any value', () => {
    expect([null, '', true, 12.5, ['a', 'b'], [], { kind: 'figure', figure: 3 }].map(valueText)).toEqual([
      'nothing',
      'nothing',
      'yes',
      '12.5',
      'a, b',
      'nothing',
      'figure 3',
    ]);
  });
  it('say what it is about', () => {
    expect(subjectLabel(mine, job, job)).toBe('My board');
    expect(subjectLabel({ kind: 'drop-part', partId: 'board', basedOn: 3 }, job, job)).toBe('Board');
    expect(subjectLabel({ kind: 'set-finding', finding: null, basedOn: 1 }, job, job)).toBe('The finding');
  });
});
