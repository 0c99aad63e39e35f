import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  copiedHarness,
  harnessOf,
  likelyHarness,
  newCable,
  presentModel,
  recordedRows,
  socketAccepts,
  withInlet,
  type Job,
} from './index.ts';
import { TestBench, testPart, testShop, uuid } from './fixture.test-help.ts';
import { casesOf } from '../size.test-help.ts';

const tower = () =>
  new TestBench().do(
    { kind: 'put-part', part: testPart('board-84', 'board'), basedOn: 0 },
    { kind: 'put-part', part: testPart('card-88', 'card'), basedOn: 0 },
    ...['d1', 'd2', 'd3'].map((id) => ({ kind: 'put-part' as const, part: testPart('drive-35', id), basedOn: 0 })),
  );
const makeIds = (from = 500) => {
  let made = from;
  return () => uuid((made += 1));
};
const inlets = (job: Job) => job.parts.flatMap((part) => part.inlets);
/** Records one cable out of a socket to each of these inlets. */
function record(on: TestBench, socketLabel: string, ...ids: string[]): string {
  const [first, ...others] = ids.map((id) => inlets(on.job).find((inlet) => inlet.id === id)!);
  const id = uuid(100 + on.job.cables.length);
  const cable = others.reduce((made, inlet) => withInlet(made, inlet), newCable(on.job, id, socketLabel, first!));
  on.do({ kind: 'put-cable', cable, basedOn: 0 });
  return id;
}
const served = (job: Job) =>
  job.cables.flatMap(({ label, plugs }) => plugs.map(({ inletId }) => [label, inletId] as const));

describe('a harness recorded by pointing', () => {
  it('tells of each inlet whether its cable was looked at, is only likely, or is missing', () => {
    const on = tower();
    record(on, 'MAIN', 'board-1');
    const likely = { ...newCable(on.job, uuid(200), '', inlets(on.job)[1]!), likely: true };
    on.do({ kind: 'put-cable', cable: likely, basedOn: 0 });
    const rows = recordedRows(on.job);
    expect(rows.map(({ inletId }) => inletId)).toEqual(inlets(on.job).map(({ id }) => id));
    expect(rows.slice(0, 3).map(({ state, cableCode, socketLabel }) => [state, cableCode, socketLabel])).toEqual([
      ['seated', 'A', 'MAIN'],
      ['to-seat', 'B', null],
      ['open', null, null],
    ]);
  });
  it('takes a plug that hangs free before it makes another', () => {
    const [first, second] = inlets(tower().job).filter(({ kind }) => kind === 'sata');
    const chain = newCable({ cables: [] }, uuid(1), 'DRIVE 1', first!);
    const free = { ...chain, plugs: [...chain.plugs, { kind: 'sata' as const, inletId: null }] };
    expect(withInlet(free, second!).plugs.map(({ inletId }) => inletId)).toEqual([first!.id, second!.id]);
    expect(withInlet(chain, second!).plugs).toHaveLength(2);
  });
  it("knows what a socket takes where the shop's list has the supply, and nothing otherwise", () => {
    const on = tower();
    const model = testShop.supplies.find(({ id }) => id === 'corvane-650-s')!;
    on.do({ kind: 'put-supply', supply: { name: model.name, label: model.label }, basedOn: 0 });
    const kit = presentModel(on.job, testShop.supplies)?.kit ?? null;
    const drive = model.kit.sockets.find(({ kind }) => kind === 'drive')!.label;
    expect(socketAccepts(kit, ` ${drive} `, 'sata')).toBe(true);
    expect(socketAccepts(kit, drive, 'cpu-8')).toBe(false);
    expect(socketAccepts(kit, 'of its own', 'cpu-8')).toBeNull();
    expect(socketAccepts(null, drive, 'cpu-8')).toBeNull();
  });
});

describe('two inlets exchanged', () => {
  const swap = (on: TestBench, cableId: string, otherCableId: string | null, first: string, second: string) =>
    on.try({
      kind: 'swap-inlets',
      cableId,
      otherCableId,
      inletId: first,
      otherInletId: second,
      basedOn: on.job.cables.find(({ id }) => id === cableId)?.version ?? 0,
    });
  it('is one act, over two cables, on one, or to an inlet without one', () => {
    const on = tower();
    const a = record(on, 'CARD 1', 'card-1');
    const b = record(on, 'CARD 2', 'card-2');
    const c = record(on, 'DRIVE 1', 'd1-1', 'd2-1');
    expect(swap(on, a, b, 'card-1', 'card-2')).toBeNull();
    expect(swap(on, c, c, 'd1-1', 'd2-1')).toBeNull();
    expect(swap(on, c, null, 'd2-1', 'd3-1')).toBeNull();
    expect(served(on.job)).toEqual([
      ['A', 'card-2'],
      ['B', 'card-1'],
      ['C', 'd3-1'],
      ['C', 'd1-1'],
    ]);
  });
  it('gives both cables another version, and takes both for looked at', () => {
    const on = tower();
    for (const cable of likelyHarness(on.job, makeIds())) on.do({ kind: 'put-cable', cable, basedOn: 0 });
    const cableOf = (id: string) => on.job.cables.find(({ plugs }) => plugs.some(({ inletId }) => inletId === id))!;
    const [first, second] = [cableOf('board-2'), cableOf('card-1')];
    expect(swap(on, first.id, second.id, 'board-2', 'card-1')).toBeNull();
    for (const id of ['board-2', 'card-1'])
      expect(cableOf(id)).toMatchObject({ version: on.job.revision, likely: undefined });
    expect(cableOf('d1-1').likely).toBe(true);
  });
  it('is refused where it was seen otherwise, and for what is not there', () => {
    const on = tower();
    const a = record(on, 'CARD 1', 'card-1');
    const b = record(on, 'CARD 2', 'card-2');
    const seen = on.job.cables[0]!.version;
    expect(swap(on, a, b, 'card-1', 'card-2')).toBeNull();
    expect(
      on.try({
        kind: 'swap-inlets',
        cableId: a,
        otherCableId: b,
        inletId: 'card-1',
        otherInletId: 'card-2',
        basedOn: seen,
      }),
    ).toMatchObject({ code: 'stale' });
    expect(swap(on, a, b, 'card-1', 'card-2')).toMatchObject({ code: 'unknown-reference', path: 'inletId' });
    expect(swap(on, a, null, 'card-2', 'card-1')).toMatchObject({ code: 'unknown-reference', path: 'otherInletId' });
    expect(swap(on, a, null, 'card-2', 'nowhere')).toMatchObject({ code: 'unknown-reference', path: 'otherInletId' });
    expect(swap(on, uuid(999), null, 'card-2', 'd1-1')).toMatchObject({ code: 'not-found' });
  });
  it('done twice is as it was, and never has an inlet twice', () => {
    const ids = inlets(tower().job).map(({ id }) => id);
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom(...ids), fc.constantFrom(...ids)), { maxLength: 12 }), (pairs) => {
        const on = tower();
        record(on, 'MAIN', 'board-1');
        record(on, 'CARD 1', 'card-1', 'card-2');
        record(on, 'DRIVE 1', 'd1-1', 'd2-1');
        const before = served(on.job);
        const at = (id: string) =>
          on.job.cables.find(({ plugs }) => plugs.some(({ inletId }) => inletId === id))?.id ?? null;
        const done: [string, string][] = [];
        for (const [first, second] of pairs) {
          const own = at(first);
          if (own !== null && first !== second) {
            expect(swap(on, own, at(second), first, second)).toBeNull();
            done.push([first, second]);
          }
          const now = served(on.job).map(([, inletId]) => inletId);
          expect(new Set(now).size).toBe(now.length);
        }
        for (const [first, second] of done.reverse()) {
          const [from, to] = at(second) === null ? [first, second] : [second, first];
          expect(swap(on, at(from)!, at(to), from, to)).toBeNull();
        }
        expect(served(on.job)).toEqual(before);
      }),
      { numRuns: 60 },
    );
  });
});

describe('a harness copied from another job', () => {
  it('goes by kind and name, then by kind; all of it is only likely', () => {
    const earlier = tower();
    record(earlier, 'MAIN', 'board-1');
    record(earlier, 'CPU 1', 'board-2');
    record(earlier, 'DRIVE 1', 'd1-1', 'd2-1', 'd3-1');
    const on = new TestBench().do(
      { kind: 'put-part', part: testPart('board', 'other'), basedOn: 0 },
      { kind: 'put-part', part: testPart('drive-35', 'e1'), basedOn: 0 },
      { kind: 'put-part', part: testPart('drive-35', 'e2'), basedOn: 0 },
    );
    const copied = copiedHarness(harnessOf(earlier.job, earlier.view().cabling), on.job, makeIds());
    expect(
      copied.map(({ label, socketLabel, likely, plugs }) => [
        label,
        socketLabel,
        likely,
        plugs.map(({ inletId }) => inletId),
      ]),
    ).toEqual([
      ['A', 'MAIN', true, ['other-1']],
      ['B', 'CPU 1', true, ['other-2']],
      ['C', 'DRIVE 1', true, ['e1-1', 'e2-1', null]],
    ]);
    for (const cable of copied) on.do({ kind: 'put-cable', cable, basedOn: 0 });
    expect(copiedHarness(harnessOf(earlier.job, earlier.view().cabling), on.job, makeIds(700))).toEqual([]);
  });
  it('is what was fitted where the supply was replaced and the job is closed', () => {
    const earlier = tower();
    record(earlier, 'OLD', 'board-1');
    earlier.do({
      kind: 'set-choice',
      choice: { kind: 'replace', modelId: 'corvane-750-s', known: [], reason: 'fits' },
      basedOn: 0,
    });
    const { cabling } = earlier.view();
    expect(harnessOf(earlier.job, cabling).cables.map(({ socketLabel }) => socketLabel)).toEqual(['OLD']);
    const left = harnessOf({ ...earlier.job, state: 'closed' }, cabling);
    expect(left.cables.map(({ label }) => label).sort()).toEqual(cabling.plan!.cables.map(({ code }) => code).sort());
    expect(left.cables.flatMap(({ plugs }) => plugs.map(({ inletId }) => inletId)).sort()).toEqual(
      cabling.rows
        .filter(({ cableCode }) => cableCode !== null)
        .map(({ inletId }) => inletId)
        .sort(),
    );
  });
  it('serves each inlet at most once, and none that has its cable, whatever the machines', () => {
    const part = fc.constantFrom('board', 'board-84', 'card-88', 'card-8', 'drive-35');
    const machine = (classes: readonly string[], prefix: string) =>
      new TestBench().do(
        ...classes.map((classId, index) => ({
          kind: 'put-part' as const,
          part: testPart(classId, `${prefix}${index}`),
          basedOn: 0,
        })),
      );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 6 }), fc.array(part, { maxLength: 6 }), (theirs, ours) => {
        const earlier = machine(theirs, 'x');
        for (const cable of likelyHarness(earlier.job, makeIds())) earlier.do({ kind: 'put-cable', cable, basedOn: 0 });
        const on = machine(ours, 'y');
        for (const cable of copiedHarness(harnessOf(earlier.job, earlier.view().cabling), on.job, makeIds(700)))
          on.do({ kind: 'put-cable', cable, basedOn: 0 });
        // What is of one kind in both machines is found as often as it is in both.
        const kinds = (job: Job) => inlets(job).map(({ kind }) => kind);
        for (const kind of new Set(kinds(on.job))) {
          const count = (job: Job) => kinds(job).filter((one) => one === kind).length;
          const found = recordedRows(on.job).filter((row) => row.kind === kind && row.state !== 'open').length;
          expect(found).toBe(Math.min(count(on.job), count(earlier.job)));
        }
      }),
      { numRuns: casesOf(20, 60) },
    );
  });
});
