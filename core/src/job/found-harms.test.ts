import { describe, expect, it } from 'vitest';
import { stepCaution } from '../wording/index.ts';
import { foundHarms, recordedRows, stepsOf, type RecordedPlug } from './index.ts';
import { TestBench, testShop, uuid } from './fixture.test-help.ts';

/** A card that somebody fed from the plugs of drives, and a drive on an adapter that may stay. */
const bench = () =>
  new TestBench().part('board', 'board').part('card-6', 'card').part('drive-35', 'd1').part('drive-35', 'd2');
const record = (on: TestBench, label: string, plugs: readonly RecordedPlug[]) =>
  on.do({
    kind: 'put-cable',
    cable: { id: uuid(700 + on.job.cables.length), label, socketLabel: '', plugs, way: '', tiesToCut: 0 },
    basedOn: 0,
  });
const onDrivePlugs = (on: TestBench) =>
  record(on, 'D', [
    { kind: 'peripheral-4', inletId: 'card-1', through: { gives: 'card-6', legs: 2, moulded: false } },
    { kind: 'peripheral-4', inletId: 'd1-1', through: { gives: 'sata', legs: 1, moulded: false } },
    { kind: 'sata', inletId: 'd2-1' },
  ]);
const keep = (on: TestBench) => {
  const { label } = testShop.supplies.find((model) => model.id === 'corvane-650-s')!;
  return on.do(
    { kind: 'put-supply', supply: { name: 'Corvane 650 S', label }, basedOn: 0 },
    { kind: 'set-choice', choice: { kind: 'keep', modelId: null, known: [], reason: 'it carries it' }, basedOn: 0 },
  );
};

describe('adapters that were found in a machine', () => {
  it('are recorded as they are; the one that may not be is named', () => {
    const on = onDrivePlugs(bench());
    expect([...foundHarms(on.job)]).toEqual([['card-1', 'crosses-purposes']]);
    const rows = recordedRows(on.job).map(({ inletId, state, plugKind }) => [inletId, state, plugKind]);
    expect(rows).toContainEqual(['card-1', 'wrong', 'card-6']);
    expect(rows).toContainEqual(['d1-1', 'seated', 'sata']);
    expect(rows).toContainEqual(['d2-1', 'seated', 'sata']);
    expect([...foundHarms(bench().job)]).toEqual([]);
  });

  it('come out and stay out where they may not be, whether the supply stays or goes; that is said at the step', () => {
    for (const kept of [false, true]) {
      const on = onDrivePlugs(bench());
      if (kept) keep(on);
      else
        on.do({
          kind: 'set-choice',
          choice: { kind: 'replace', modelId: 'corvane-650-s', known: [], reason: '' },
          basedOn: 0,
        });
      const unplugged = stepsOf(on.job, on.view().cabling, 'take-out').filter(({ kind }) => kind === 'unplug');
      const harmful = unplugged.filter(({ harm }) => harm !== null);
      expect(harmful.map(({ inlet, harm }) => [inlet?.id, harm])).toEqual([['card-1', 'crosses-purposes']]);
      expect(stepCaution(harmful[0]!)).toContain('stays out: never: it feeds one purpose from another');
      // A kept supply's drives are left where they are.
      expect(unplugged.length === 1).toBe(kept);
    }
  });

  it('are never planned with: a kept supply gives that inlet a cable of its own, and the rest stays', () => {
    const on = keep(onDrivePlugs(bench()));
    const rows = new Map(on.view().cabling.rows.map((row) => [row.inletId, row]));
    expect(rows.get('card-1')).toMatchObject({ state: 'to-seat', kitCableId: 'card', adapterId: null });
    expect(rows.get('d1-1')).toMatchObject({ state: 'stays', cableCode: 'D', plugKind: 'sata' });
    expect(on.view().cabling.misfits).toEqual([
      { cableId: on.job.cables[0]!.id, inletId: 'card-1', plugKind: 'peripheral-4', harm: 'crosses-purposes' },
    ]);
    const asked = () => on.view().openPoints.find(({ code }) => code === 'found-adapter')?.subject;
    expect(asked()).toBe(rows.get('card-1')?.label);
    on.do({ kind: 'tick-step', stepId: 'take-out:unplug:card-1' });
    expect(asked()).toBeUndefined();
  });

  it('keep the plug that they hang on: what comes new to a kept supply gets another one', () => {
    const on = new TestBench().part('board', 'board').part('drive-35', 'd1').part('drive-35', 'd2');
    on.do({
      kind: 'put-cable',
      cable: {
        ...{ id: uuid(720), label: 'P', socketLabel: 'DRIVE 2', way: '', tiesToCut: 0 },
        plugs: [
          { kind: 'peripheral-4', inletId: 'd1-1', through: { gives: 'sata', legs: 1, moulded: false } },
          { kind: 'peripheral-4', inletId: 'd2-1', through: { gives: 'sata', legs: 1, moulded: false } },
        ],
      },
      basedOn: 0,
    });
    keep(on);
    on.part('drive-old', 'old', { change: 'added' }).part('drive-old', 'older', { change: 'added' });
    const rows = new Map(on.view().cabling.rows.map((row) => [row.inletId, row]));
    expect(['d1-1', 'd2-1'].map((id) => rows.get(id)!.state)).toEqual(['stays', 'stays']);
    // The kit's one such cable has three plugs, and two of them are taken.
    const added = ['old-1', 'older-1'].map((id) => rows.get(id)!);
    const served = added.filter(({ cableCode }) => cableCode === 'P');
    expect(served).toMatchObject([{ plugIndex: 2, socketLabel: 'DRIVE 2' }]);
    expect(added.filter(({ cableCode }) => cableCode === null)).toMatchObject([{ openReason: 'no-free-plug' }]);
  });
});
