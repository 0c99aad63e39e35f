import { describe, expect, it } from 'vitest';
import { likelyHarness, stepsOf } from './index.ts';
import { TestBench, testShop, uuid } from './fixture.test-help.ts';

const bench = () =>
  new TestBench()
    .part('board', 'board')
    .part('processor-65', 'cpu')
    .part('card-8', 'old', { change: 'removed' })
    .part('card-88', 'card', { change: 'added' })
    .part('drive-35', 'd1')
    .part('drive-35', 'd2');
const harness = (on: TestBench) => {
  let count = 0;
  for (const cable of likelyHarness(on.job, () => uuid(500 + (count += 1))))
    on.do({ kind: 'put-cable', cable, basedOn: 0 });
};

describe('a supply that is kept', () => {
  const keep = (on: TestBench, name: string, ratingWatts = 650) => {
    const { label } = testShop.supplies.find((model) => model.id === 'corvane-650-s')!;
    return on.do(
      { kind: 'put-supply', supply: { name, label: { ...label, ratingWatts } }, basedOn: 0 },
      { kind: 'set-choice', choice: { kind: 'keep', modelId: null, known: [], reason: 'it carries it' }, basedOn: 0 },
    );
  };
  const rowOf = (on: TestBench, inletId: string) => on.view().cabling.rows.find((row) => row.inletId === inletId)!;

  it("has its new inlets planned from its own kit where the shop's list has it, around what is recorded", () => {
    const on = bench();
    harness(on);
    keep(on, ' corvane  650 s ');
    const { cabling } = on.view();
    expect(cabling.basis).toBe('record');
    expect(rowOf(on, 'board-1')).toMatchObject({ cableCode: 'A', kitCableId: null });
    // No recorded cable is known to be one of the kit's modular ones: the new card's get a name of their own.
    const added = ['card-1', 'card-2'].map((id) => rowOf(on, id));
    expect(added.map((row) => row.kitCableId)).toEqual(['card', 'card']);
    expect(new Set(added.map((row) => row.cableCode))).toEqual(new Set(['N1', 'N2']));
    expect(added.every((row) => row.state === 'to-seat' && row.slackMillimetres !== null)).toBe(true);
    expect(new Set(added.map((row) => row.socketLabel)).size).toBe(2);
  });
  it('gives the cable of a card that leaves to the one that comes, under the label it has', () => {
    const on = bench();
    harness(on);
    const kit = testShop.supplies.find((model) => model.id === 'corvane-650-s')!.kit;
    const socket = kit.sockets.find((one) => one.kind === 'card' || one.kind === 'cpu-card')!.label;
    const { version, ...old } = on.job.cables.find((cable) => cable.label === 'C')!;
    on.do({ kind: 'put-cable', cable: { ...old, socketLabel: socket }, basedOn: version });
    keep(on, 'Corvane 650 S');
    const codes = ['card-1', 'card-2'].map((id) => rowOf(on, id).cableCode);
    expect(new Set(codes)).toEqual(new Set(['C', 'N1']));
  });
  it('leaves in what somebody looked at and nothing asks to come out; it can be ticked all the same', () => {
    const on = bench();
    harness(on);
    const looked = (label: string) => {
      const { version, likely: _likely, ...cable } = on.job.cables.find((item) => item.label === label)!;
      on.do({ kind: 'put-cable', cable, basedOn: version });
    };
    ['A', 'D'].forEach(looked);
    keep(on, 'Corvane 650 S');
    const states = () => Object.fromEntries(on.view().cabling.rows.map(({ inletId, state }) => [inletId, state]));
    expect(states()).toEqual({
      'board-1': 'stays',
      // Nobody looked at this one yet.
      'board-2': 'to-seat',
      'card-1': 'to-seat',
      'card-2': 'to-seat',
      'd1-1': 'stays',
      'd2-1': 'stays',
    });
    const plugged = () =>
      stepsOf(on.job, on.view().cabling, 'refit').flatMap(({ kind, inlet }) => (kind === 'plug' ? [inlet!.id] : []));
    expect(plugged().sort()).toEqual(['board-2', 'card-1', 'card-2']);
    const asked = () => on.view().openPoints.filter(({ code }) => code === 'not-seated');
    expect(asked()).toHaveLength(3);
    // Once it is being looked at it is looked at for all.
    expect([on.seat('d1-1', { gap: false }), states()['d1-1']].at(-1)).toBe('to-seat');
    expect([on.seat('d1-1'), states()['d1-1']].at(-1)).toBe('seated');
    expect(plugged()).toContain('d1-1');
    expect(on.view().stations.find(({ id }) => id === 'cables')!.line).toEqual({ code: 'seated', seated: 1, all: 4 });
  });
  it('asks for no connector where nothing is unplugged', () => {
    const on = bench();
    for (const id of ['old', 'card'])
      on.do({ kind: 'drop-part', partId: id, basedOn: on.job.parts.find((part) => part.id === id)!.version });
    harness(on);
    for (const { version, likely: _likely, ...cable } of on.job.cables)
      on.do({ kind: 'put-cable', cable, basedOn: version });
    keep(on, 'Corvane 650 S');
    const { cabling, openPoints, stations } = on.view();
    expect(cabling.rows.every(({ state }) => state === 'stays')).toBe(true);
    expect(openPoints.map(({ code }) => code)).not.toContain('not-seated');
    expect(stepsOf(on.job, cabling, 'refit').map(({ kind }) => kind)).not.toContain('recheck');
    expect(stations.find(({ id }) => id === 'cables')).toMatchObject({ state: 'settled', line: { code: 'recorded' } });
  });
  it('is left as recorded where nobody knows its kit', () => {
    const on = bench();
    harness(on);
    keep(on, 'Nobody knows this one');
    expect(rowOf(on, 'card-1')).toMatchObject({ state: 'open', cableCode: null });
    const other = bench();
    harness(other);
    keep(other, 'Corvane 650 S', 640);
    expect(rowOf(other, 'card-1')).toMatchObject({ state: 'open', cableCode: null });
  });
  it('is judged at Load with its kit as any other supply is at Replacement', () => {
    const on = bench();
    keep(on, 'Corvane 650 S');
    const { load, candidates } = on.view();
    const same = candidates.find((candidate) => candidate.model.id === 'corvane-650-s')!;
    expect(load.plannedAssessment).toEqual(same.load);
  });
});
