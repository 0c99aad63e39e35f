import { describe, expect, it } from 'vitest';
import { nearMinutes, worthOf } from '../diagnose/index.ts';
import { nextReadingText } from '../wording/index.ts';
import type { Act } from './act.ts';
import { bareReading } from './index.ts';
import { TestBench, uuid } from './fixture.test-help.ts';

const told = (button: string): Act => ({ kind: 'edit-sheet', changes: { button, course: 'slowly' }, basedOn: 99 });
const note = (id: number, checkId: string, outcomeId: string): Act => ({
  kind: 'note-outcome',
  id: uuid(id),
  checkId,
  outcomeId,
});
const bench = (button: string) =>
  new TestBench().part('board-84', 'board').part('processor-65', 'processor').do(told(button));
const powerGood = (id: number): Act => ({
  kind: 'take-reading',
  reading: {
    id: uuid(id),
    phase: 'before',
    subject: 'power-good',
    condition: 'idle',
    value: { kind: 'figure', figure: 300 },
    instrumentId: 'meter',
    ...bareReading,
  },
});
const next = (at: TestBench) => at.view().nextReading;
const measured = ['m-standby', 'm-rails-off', 'm-rails-work', 'm-steady', 'm-pg'];

describe('the next reading', () => {
  it('of a dead machine is its standby voltage, never a rail of a machine that runs', () => {
    const dead = bench('nothing').do(note(1, 'look-standby-light', 'dark'));
    expect(next(dead)).toEqual({ subject: '+5sb', condition: 'off-load', why: { kind: 'first' } });
    expect(next(bench('nothing').do(note(1, 'look-standby-light', 'lit')))?.why.kind).not.toBe('first');
    dead.read(2, '+5sb', 'off-load', 5.02);
    expect(next(dead)?.condition).not.toBe('work');
    expect(next(dead)?.condition).not.toBe('idle');
  });
  it('is of the check that is worth most among those that readings answer', () => {
    for (const button of ['cuts-load', 'cuts-random', 'restarts', 'several-tries', 'no-picture', 'works']) {
      const at = bench(button);
      const answered = at.view().nextChecks.filter(({ checkId }) => measured.includes(checkId));
      const most = Math.max(...answered.map(worthOf));
      const best = answered.find((check) => most - worthOf(check) <= nearMinutes)!;
      const why = next(at)?.why;
      if (most >= 0.05)
        expect([button, why]).toEqual([button, { kind: 'tells', checkId: best.checkId, savesMinutes: worthOf(best) }]);
      else expect([button, why]).toEqual([button, { kind: 'record' }]);
    }
  });
  it('settles what cannot be told, as often as it takes, where something hangs on it', () => {
    const at = bench('cuts-load')
      .read(1, '+12', 'idle', 12.02)
      .read(2, '+12', 'work', 11.4)
      .read(3, '+5', 'work', 5.02);
    at.read(4, '+3.3', 'work', 3.31).read(5, '+5', 'idle', 5.03).read(6, '+3.3', 'idle', 3.32);
    const verdict = at
      .view()
      .before.verdicts.find(({ subject, condition }) => subject === '+12' && condition === 'work');
    expect(verdict?.word).toBe('cannot-tell');
    expect(next(at)).toMatchObject({
      subject: '+12',
      condition: 'work',
      why: { kind: 'settles', repeats: verdict?.settlingRepeats },
    });
    expect(nextReadingText(next(at)!)).toContain('cannot tell');
  });
  it('goes on to the rails beside one that passed, and is none when all are read', () => {
    const at = bench('cuts-load').read(1, '+12', 'work', 12.02);
    const rails = ['+12', '+5', '+3.3'] as const;
    const volts = { '+12': 12.03, '+5': 5.02, '+3.3': 3.31 };
    const seen = new Set<string>();
    for (let id = 2; id < 20; id += 1) {
      const reading = next(at);
      if (reading === null) break;
      const { subject, condition } = reading;
      expect(seen.has(`${subject} ${condition}`)).toBe(false);
      seen.add(`${subject} ${condition}`);
      if (subject === 'power-good') at.do(powerGood(id));
      else if (subject === '+5sb') at.read(id, subject, condition, 5.01);
      else if (subject in volts)
        at.read(id, subject as keyof typeof volts, condition, volts[subject as keyof typeof volts]);
    }
    expect(next(at)).toBeNull();
    for (const rail of rails)
      expect(at.view().before.verdicts.filter(({ subject }) => subject === rail)).toHaveLength(2);
  });
  it('is none while a danger stands, and comes back once it is made safe', () => {
    const at = bench('cuts-load').do(note(1, 'told-smell', 'burnt'));
    expect(next(at)).toBeNull();
    expect(at.view().interlocks).not.toEqual([]);
  });
});
