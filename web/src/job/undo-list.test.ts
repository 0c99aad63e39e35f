import { describe, expect, it } from 'vitest';
import { applyAct, newJob, type Act, type Job } from '@fairwatt/core';
import { mostUndoable, remembered, undoText, type Undoable } from './undo-list.ts';

const knows = { instrument: () => true, supply: () => true, fault: () => true, outcome: () => true };
const start = newJob('LQ-0001', 'Machine', '', '', 'peaks-covered', '2026-01-01T00:00:00.000Z');
const newId = () => crypto.randomUUID();

/** Somebody at a screen: what they do is remembered second by second. */
class Screen {
  job: Job = start;
  list: readonly Undoable[] = [];
  seconds = 0;
  does(act: Act, together = false): this {
    const result = applyAct(this.job, act, { by: 'mara', at: start.updatedAt, knows, unansweredPoints: () => 0 });
    if (!result.ok) throw new Error(result.refusal.code);
    this.seconds += together ? 0 : 1;
    const done = { id: newId(), text: act.kind, at: this.seconds * 1000, before: this.job, after: result.job, act };
    this.list = remembered(this.list, done, together, newId);
    this.job = result.job;
    return this;
  }
}
const step = (stepId: string): Act => ({ kind: 'tick-step', stepId });
const typed = (changes: Extract<Act, { kind: 'edit-sheet' }>['changes']): Act => ({
  kind: 'edit-sheet',
  changes,
  basedOn: 1000,
});

describe('what was done at a screen', () => {
  it('is remembered one by one, the last at the end; what changed nothing is not', () => {
    const { list } = new Screen().does(step('a')).does(step('b')).does(step('b'));
    expect(list.map(({ back }) => back)).toEqual([
      [{ kind: 'untick-step', stepId: 'a' }],
      [{ kind: 'untick-step', stepId: 'b' }],
    ]);
    expect(new Set(list.map(({ id }) => id)).size).toBe(2);
  });
  it('is one thing where it came of one key, taken back from its end', () => {
    const { list, job } = new Screen().does(step('a')).does(step('b')).does(step('c'), true).does(step('d'), true);
    expect(list).toHaveLength(2);
    expect(list[1]!.back.map((act) => ('stepId' in act ? act.stepId : ''))).toEqual(['d', 'c', 'b']);
    expect(list[1]!.left).toBe(job);
    expect(undoText(list[1]!)).toBe('tick-step and 2 more');
    expect(undoText(list[0]!)).toBe('tick-step');
  });
  it('is one thing where typing goes on in a field, back to what stood before it began', () => {
    const screen = new Screen()
      .does(typed({ words: 'C' }))
      .does(typed({ words: 'Cu' }))
      .does(typed({ words: 'Cuts' }));
    expect(screen.list).toHaveLength(1);
    expect(screen.list[0]!.back).toMatchObject([{ changes: { words: '' } }]);
    expect(screen.list[0]!.left.sheet.words).toBe('Cuts');
    screen.does(typed({ title: 'Tower' }));
    expect(screen.list).toHaveLength(2);
    screen.seconds += 61;
    screen.does(typed({ title: 'Tower by the door' }));
    expect(screen.list).toHaveLength(3);
    expect(screen.list[2]!.back).toMatchObject([{ changes: { title: 'Tower' } }]);
  });
  it('is forgotten after so many', () => {
    const screen = new Screen();
    for (let count = 0; count < mostUndoable + 5; count += 1) screen.does(step(`s${count}`));
    expect(screen.list).toHaveLength(mostUndoable);
    expect(screen.list[0]!.back).toEqual([{ kind: 'untick-step', stepId: 's5' }]);
  });
});
