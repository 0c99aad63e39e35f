import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fittingOf, pieceOf, readingsOf, stepsOf, viewJob, type InletRow } from './index.ts';
import type { PartChange } from '../machine/index.ts';
import { TestBench, testPart, testShop } from './fixture.test-help.ts';
import { casesOf } from '../size.test-help.ts';

const all = { click: true, tug: true, gap: true, halves: true, bend: true, panel: true };
const supplies = ['corvane-650-s', 'corvane-750-s', 'corvane-850-s'] as const;

function bench(): TestBench {
  return new TestBench().do(
    { kind: 'put-part', part: testPart('board', 'board'), basedOn: 0 },
    { kind: 'put-part', part: testPart('processor-65', 'cpu'), basedOn: 0 },
    { kind: 'put-part', part: testPart('card-88', 'card'), basedOn: 0 },
    { kind: 'put-part', part: testPart('drive-35', 'd1'), basedOn: 0 },
  );
}
const rowsOf = (on: TestBench) => viewJob(on.job, testShop).cabling.rows;
const choose = (on: TestBench, modelId: string) =>
  on.do({
    kind: 'set-choice',
    choice: { kind: 'replace', modelId, known: [], reason: 'fits' },
    basedOn: on.job.choice?.version ?? 0,
  });
const seat = (on: TestBench, row: InletRow) =>
  on.do({
    kind: 'put-seat',
    basedOn: on.job.seats.find((item) => item.inletId === row.inletId)?.version ?? 0,
    seat: { inletId: row.inletId, cableCode: row.cableCode!, piece: pieceOf(row), plugIndex: row.plugIndex!, ...all },
  });
const seatAll = (on: TestBench) => {
  for (const row of rowsOf(on)) if (row.cableCode !== null) seat(on, row);
};
const seated = (on: TestBench) => rowsOf(on).filter((row) => row.state === 'seated').length;
const readAfter = (on: TestBench, id: number) => on.read(id, '+12', 'work', 11.9, 'after');

describe('what was done for one supply', () => {
  it('is not taken over by another, and stands again when it is chosen again', () => {
    const on = bench();
    choose(on, 'corvane-750-s');
    seatAll(on);
    on.do({ kind: 'tick-step', stepId: 'refit:tie' }, { kind: 'tick-step', stepId: 'take-out:panel-off' });
    const before = seated(on);
    expect(before).toBe(rowsOf(on).length);
    choose(on, 'corvane-850-s');
    expect(seated(on)).toBe(0);
    expect(on.job.seats).toEqual([]);
    const done = (phase: 'take-out' | 'refit') =>
      stepsOf(on.job, viewJob(on.job, testShop).cabling, phase).filter((step) => step.done !== null);
    expect(done('refit')).toEqual([]);
    // The old supply is out of its panel, whatever comes in.
    expect(done('take-out').map((step) => step.kind)).toEqual(['panel-off']);
    expect(on.job.laidAside.map((work) => work.fitting)).toEqual(['replace:corvane-750-s']);
    choose(on, 'corvane-750-s');
    expect(seated(on)).toBe(before);
    expect(on.job.laidAside).toEqual([]);
  });
  it('so are readings after the work: they are of the supply that was chosen when they were taken', () => {
    const on = bench();
    choose(on, 'corvane-750-s');
    readAfter(on, 801);
    expect(viewJob(on.job, testShop).after.verdicts).toHaveLength(1);
    choose(on, 'corvane-850-s');
    expect(viewJob(on.job, testShop).after.verdicts).toEqual([]);
    expect(on.job.readings).toHaveLength(1);
    choose(on, 'corvane-750-s');
    expect(readingsOf(on.job, 'after').map((item) => item.fitting)).toEqual([fittingOf(on.job.choice)]);
  });
  it('a tick does not stand for an inlet of another kind, nor for another piece under the same code', () => {
    const on = bench();
    choose(on, 'corvane-750-s');
    seatAll(on);
    const card = on.job.parts.find((part) => part.id === 'card')!;
    const { version, ...rest } = card;
    const inlets = card.inlets.map((inlet, index) => (index === 0 ? { ...inlet, kind: 'card-6' as const } : inlet));
    on.do({ kind: 'put-part', part: { ...rest, inlets }, basedOn: version });
    expect(rowsOf(on).find((row) => row.inletId === 'card-1')!.state).toBe('to-seat');
    on.do({ kind: 'put-part', part: rest, basedOn: on.job.parts.find((part) => part.id === 'card')!.version });
    expect(rowsOf(on).find((row) => row.inletId === 'card-1')!.state).toBe('seated');
  });
  it('whatever is changed, no tick stands for something it was not given to', () => {
    const change = fc.oneof(
      fc.record({ kind: fc.constant('choose' as const), model: fc.constantFrom(...supplies) }),
      fc.record({ kind: fc.constant('seat' as const), row: fc.nat(8) }),
      fc.record({
        kind: fc.constant('part' as const),
        id: fc.constantFrom('card', 'd1', 'd2'),
        change: fc.constantFrom<PartChange>('stays', 'added', 'removed'),
      }),
    );
    fc.assert(
      fc.property(fc.array(change, { minLength: 4, maxLength: 14 }), (changes) => {
        const on = bench();
        // What was ticked, by hand: supply, inlet, kind, piece.
        const given = new Set<string>();
        const nameOf = (row: InletRow) =>
          [on.job.choice?.modelId, row.inletId, row.kind, pieceOf(row), row.plugIndex].join('|');
        for (const item of changes) {
          if (item.kind === 'choose') choose(on, item.model);
          else if (item.kind === 'part') {
            const part = on.job.parts.find((one) => one.id === item.id);
            const draft = testPart(item.id === 'card' ? 'card-88' : 'drive-35', item.id, { change: item.change });
            on.do({ kind: 'put-part', part: draft, basedOn: part?.version ?? 0 });
          } else {
            const rows = rowsOf(on).filter((row) => row.cableCode !== null);
            const row = rows[item.row % Math.max(1, rows.length)];
            if (row === undefined) continue;
            seat(on, row);
            given.add(nameOf(row));
          }
          for (const row of rowsOf(on)) if (row.seat !== null) expect(given.has(nameOf(row)), nameOf(row)).toBe(true);
        }
      }),
      { numRuns: casesOf(20, 60), seed: 15 },
    );
  });
});
