import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyFrom } from '../even.test-help.ts';
import { bareSentence, clientWords, openPointText, stationLineText } from '../wording/index.ts';
import { knowledge } from '../diagnose/knowledge.test-help.ts';
import type { Condition, Subject } from '../measure/index.ts';
import { bareReading, supplyMark, type Act } from './index.ts';
import { TestBench, testShop, uuid } from './fixture.test-help.ts';

const model = testShop.supplies.find(({ id }) => id === 'corvane-650-s')!;
const reading = (id: number, subject: Subject, figure: number, condition: Condition = 'off-load'): Act => ({
  kind: 'take-reading',
  reading: {
    ...bareReading,
    id: uuid(id),
    phase: 'before',
    subject,
    condition,
    value: { kind: 'figure', figure },
    instrumentId: 'meter',
  },
});
const bench = () => {
  const on = new TestBench();
  return on.do({ kind: 'edit-sheet', basedOn: on.job.sheet.version, changes: { bareSupply: true } });
};
const withLabel = () =>
  bench().do({ kind: 'put-supply', supply: { name: model.name, label: model.label }, basedOn: 0 });
const nominal = { '+12': 12, '+5': 5, '+3.3': 3.3, '-12': -12, '+5sb': 5 } as const;
const readAll = (on: TestBench, condition: Condition = 'off-load', from = 10) =>
  on.do(
    ...(['+12', '+5', '+3.3', '+5sb'] as const).map((rail, index) =>
      reading(from + index, rail, nominal[rail], condition),
    ),
  );
const edit = (on: TestBench, changes: Extract<Act, { kind: 'edit-sheet' }>['changes']) =>
  on.do({ kind: 'edit-sheet', basedOn: on.job.sheet.version, changes });
const codes = (on: TestBench) => on.view().openPoints.map(({ code }) => code);

describe('a supply by itself', () => {
  it('is not judged before its label and every rail are known, one after the other', () => {
    const on = bench();
    expect(on.view().bareVerdict).toMatchObject({ word: 'cannot-tell' });
    expect(on.view().nextReading).toMatchObject({ subject: '+12', condition: 'off-load' });
    readAll(on);
    expect(on.view().bareVerdict).toEqual({ word: 'cannot-tell', missing: [{ code: 'label' }] });
    expect(codes(on)).toEqual(['bare-unjudged', 'old-supply-unmarked']);
  });
  it('is good for the load at which it was read, and closes once its fate is said', () => {
    const on = readAll(withLabel());
    expect(on.view().bareVerdict).toMatchObject({ word: 'good', loaded: false });
    expect(bareSentence(on.view().bareVerdict!)).toContain('off load; what it does at work is not known');
    readAll(on, 'work', 20);
    expect(on.view().bareVerdict).toMatchObject({ word: 'good', loaded: true });
    expect(codes(on)).toEqual(['old-supply-unmarked']);
    edit(on, { oldSupply: 'kept', oldSupplyNote: 'spare for the bench' });
    expect(codes(on)).toEqual([]);
    on.do({ kind: 'close', basedOn: on.job.stateVersion });
    expect(on.job.state).toBe('closed');
    expect(supplyMark(on.job, on.view().bareVerdict)).toMatchObject({
      word: 'kept',
      name: model.name,
      ratingWatts: 650,
    });
    expect(clientWords(on.job, on.view(), knowledge).old).toEqual(['The supply is good, and is kept here.']);
  });
  it('has not failed by one reading, and has by two, or by one that is too high', () => {
    const low = readAll(withLabel()).do(reading(30, '+12', 10.9, 'work'));
    expect(low.view().bareVerdict).toEqual({ word: 'cannot-tell', missing: [{ code: 'again', subject: '+12' }] });
    low.do(reading(31, '+12', 10.91, 'work'));
    expect(low.view().bareVerdict).toMatchObject({ word: 'failed', why: 'reading' });
    const high = withLabel().do(reading(30, '+5', 6.1));
    expect(high.view().bareVerdict).toMatchObject({ word: 'failed', verdict: { subject: '+5' } });
    expect(codes(high)).toContain('danger');
    edit(high, { oldSupply: 'kept' });
    expect(high.view().openPoints.map(openPointText)).toContain('The supply has failed and is marked to be kept.');
    edit(high, { oldSupply: 'failed' });
    expect(codes(high)).toEqual([]);
  });
  it('has failed where it does not start although its standby is there', () => {
    const on = withLabel();
    on.do({ kind: 'note-outcome', id: uuid(40), checkId: 'm-offload', outcomeId: 'nothing' });
    expect(on.view().bareVerdict).toEqual({ word: 'cannot-tell', missing: [{ code: 'outlet' }] });
    expect(on.view().nextReading?.subject).toBe('+5sb');
    on.do(reading(41, '+5sb', 5.02));
    expect(on.view().bareVerdict).toEqual({ word: 'failed', why: 'no-start', verdict: null });
  });
  it('is not read on while something dangerous stands', () => {
    const on = withLabel();
    expect(on.view().nextReading).not.toBeNull();
    on.do({ kind: 'note-outcome', id: uuid(42), checkId: 'told-smell', outcomeId: 'burnt' });
    expect(on.view().nextReading).toBeNull();
    expect(codes(on)).toContain('danger');
  });
  it('needs no other station, and says so', () => {
    const on = readAll(withLabel());
    const lines = on.view().stations.map(({ line }) => stationLineText(line, knowledge, String));
    expect(lines).toEqual([
      '650 W supply by itself',
      'not needed',
      'good, off load',
      'not needed',
      'not needed',
      'not needed',
      '1 open',
    ]);
    edit(on, { bareSupply: false });
    expect(on.view().bareVerdict).toBeNull();
    expect(codes(on)).toContain('no-finding');
  });
  it('is never good while a rail is unread, fails or cannot be told (any readings)', () => {
    const one = fc.record({
      rail: fc.constantFrom('+12', '+5', '+3.3', '+5sb' as const),
      share: anyFrom(0.9, 1.1),
      condition: fc.constantFrom<Condition>('off-load', 'work'),
    });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 14 }), (list) => {
        const on = withLabel();
        list.forEach(({ rail, share, condition }, index) =>
          on.do(reading(50 + index, rail, nominal[rail] * share, condition)),
        );
        const { bareVerdict: bare, before } = on.view();
        const words = (rail: string) =>
          before.verdicts.filter(({ subject }) => subject === rail).map(({ word }) => word);
        const sound = ['+12', '+5', '+3.3', '+5sb'].every(
          (rail) => words(rail).length > 0 && words(rail).every((word) => word === 'pass' || word === 'marginal'),
        );
        expect(bare?.word === 'good').toBe(sound);
        if (before.verdicts.every(({ word }) => word !== 'fail')) expect(bare?.word).not.toBe('failed');
      }),
      { numRuns: 60 },
    );
  });
});
