import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { openPointText } from '../wording/index.ts';
import { likelyHarness, nextStage, pathStages, pieceOf, pointOfStage, stepsOf, type PathStage } from './index.ts';
import { TestBench, testPart, uuid } from './fixture.test-help.ts';

const bench = () =>
  new TestBench().do(
    { kind: 'put-part', part: testPart('board', 'board'), basedOn: 0 },
    { kind: 'put-part', part: testPart('processor-65', 'cpu'), basedOn: 0 },
    { kind: 'put-part', part: testPart('drive-35', 'd1'), basedOn: 0 },
  );
const choose = (on: TestBench, modelId = 'corvane-650-s') =>
  on.do({
    kind: 'set-choice',
    choice: { kind: 'replace', modelId, known: [], reason: 'fits' },
    basedOn: on.job.choice?.version ?? 0,
  });
const next = (on: TestBench) => nextStage(on.job, on.view().openPoints);
const tick = (on: TestBench, phase: 'take-out' | 'refit') => {
  for (const step of stepsOf(on.job, on.view().cabling, phase))
    if (!step.derived && step.done === null) on.do({ kind: 'tick-step', stepId: step.id });
};
const record = (on: TestBench) =>
  on.job.parts
    .flatMap(({ inlets }) => inlets)
    .forEach((inlet, index) => {
      on.do({
        kind: 'put-cable',
        basedOn: 0,
        cable: {
          id: uuid(500 + index),
          label: `C${index}`,
          socketLabel: '',
          plugs: [
            {
              kind: inlet.kind === 'main-24' ? 'main-20+4' : inlet.kind === 'sata' ? 'sata' : 'cpu-4+4',
              inletId: inlet.id,
            },
          ],
          way: '',
          tiesToCut: 0,
        },
      });
    });
const seatFirst = (on: TestBench) => {
  const row = on.view().cabling.rows.find(({ state }) => state === 'to-seat')!;
  on.do({
    kind: 'put-seat',
    basedOn: 0,
    seat: {
      inletId: row.inletId,
      cableCode: row.cableCode!,
      piece: pieceOf(row),
      plugIndex: row.plugIndex!,
      click: true,
      tug: true,
      gap: true,
      halves: true,
      bend: true,
      panel: true,
    },
  });
};
const pass = (on: TestBench, stage: PathStage, id: number) =>
  on.do({
    kind: 'sign-off',
    id: uuid(id),
    point: pointOfStage(stage, on.view().openPoints)!.key,
    reason: 'it came open',
  });

describe('the path of a change of supply', () => {
  it('leads through record, take out and refit, each once it is done', () => {
    const on = bench();
    expect(next(on)).toBeNull();
    choose(on);
    expect(next(on)).toBe('record');
    record(on);
    expect(next(on)).toBe('take-out');
    tick(on, 'take-out');
    expect(next(on)).toBe('refit');
    tick(on, 'refit');
    expect(next(on)).toBeNull();
  });
  it('takes a likely cable for recorded only once somebody looked at it', () => {
    const on = bench();
    choose(on);
    let made = 600;
    for (const cable of likelyHarness(on.job, () => uuid((made += 1)))) on.do({ kind: 'put-cable', cable, basedOn: 0 });
    expect(next(on)).toBe('record');
    for (const { version, likely: _likely, ...cable } of on.job.cables)
      on.do({ kind: 'put-cable', cable, basedOn: version });
    expect(next(on)).toBe('take-out');
  });
  it('passes a stage by saying why, and asks again once that is taken back', () => {
    const on = bench();
    choose(on);
    pass(on, 'record', 700);
    expect(next(on)).toBe('take-out');
    pass(on, 'take-out', 701);
    expect(next(on)).toBe('refit');
    on.do({ kind: 'withdraw-sign-off', id: uuid(700) });
    expect(next(on)).toBe('record');
  });
  it('no longer leads back once something is seated, and still has it open at hand-over', () => {
    const on = bench();
    choose(on);
    seatFirst(on);
    expect(next(on)).toBe('refit');
    expect(on.view().openPoints.map(openPointText)).toContain(
      'Not recorded as it was: 3 inlets without a cable that somebody looked at.',
    );
  });
  it('what was said of a refit belongs to one supply; what was said of the record, to the machine', () => {
    const on = bench();
    choose(on);
    pass(on, 'record', 700);
    pass(on, 'refit', 701);
    choose(on, 'corvane-750-s');
    const point = (stage: PathStage) => pointOfStage(stage, on.view().openPoints);
    expect(point('record')?.signOff).not.toBeNull();
    expect(point('refit')?.signOff).toBeNull();
    choose(on, 'corvane-650-s');
    expect(point('refit')?.signOff).not.toBeNull();
  });
  it('takes parts out and puts them in where the supply stays, without a record of its cables', () => {
    const on = bench().do(
      { kind: 'put-part', part: testPart('card-8', 'old', { change: 'replaced' }), basedOn: 0 },
      { kind: 'put-part', part: testPart('card-88', 'new', { change: 'added' }), basedOn: 0 },
      { kind: 'put-lead', lead: { id: uuid(900), kind: 'riser', what: 'Riser', place: '', state: 'back' }, basedOn: 0 },
    );
    record(on);
    on.do({ kind: 'set-choice', choice: { kind: 'keep', modelId: null, known: [], reason: '' }, basedOn: 0 });
    const parts = (phase: 'take-out' | 'refit') =>
      stepsOf(on.job, on.view().cabling, phase).flatMap(({ kind, part }) => (part === null ? [] : [[kind, part]]));
    expect(parts('take-out')).toEqual([
      ['part-out', expect.objectContaining({ id: 'old', group: 'card', riser: true })],
    ]);
    expect(parts('refit')).toEqual([['part-in', expect.objectContaining({ id: 'new', group: 'card', riser: true })]]);
    expect(next(on)).toBe('take-out');
    tick(on, 'take-out');
    expect(next(on)).toBe('refit');
    tick(on, 'refit');
    expect(next(on)).toBeNull();
    // Another card than the one that was ticked has to go in itself.
    const { version, ...card } = on.job.parts.find(({ id }) => id === 'new')!;
    on.do({ kind: 'put-part', part: { ...card, classId: 'card-16' }, basedOn: version });
    expect(next(on)).toBe('refit');
  });
  it('asks nothing where everything stays, and of a closed job nothing that it was not asked', () => {
    const on = bench();
    on.do({ kind: 'set-choice', choice: { kind: 'keep', modelId: null, known: [], reason: '' }, basedOn: 0 });
    expect(pathStages.map((stage) => pointOfStage(stage, on.view().openPoints))).toEqual([null, null, null]);
  });
  it('is over only when each stage is done or passed, whatever the order of the acts', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(['record', 'take-out', 'refit', 'pass-record', 'pass-refit']), (acts) => {
        const on = bench();
        choose(on);
        acts.forEach((act, index) => {
          if (act === 'record') record(on);
          else if (act === 'take-out' || act === 'refit') tick(on, act);
          else {
            const stage = act === 'pass-record' ? 'record' : 'refit';
            if (pointOfStage(stage, on.view().openPoints) !== null) pass(on, stage, 800 + index);
          }
        });
        const isOver = (stage: PathStage) => acts.includes(stage) || acts.includes(`pass-${stage}`);
        expect(next(on)).toBe(pathStages.find((stage) => !isOver(stage)) ?? null);
      }),
      { numRuns: 12 },
    );
  });
});
