import { describe, expect, it } from 'vitest';
import { stepCaution, stepText, harnessWordText } from '../wording/index.ts';
import { noBags, type CableBags } from '../cable/index.ts';
import {
  harnessChanges,
  likelyHarness,
  scheduleOf,
  seatChecks,
  stepsOf,
  tagsOf,
  viewJob,
  wayPoints,
  type Seat,
} from './index.ts';
import { TestBench, testPart, testShop, uuid } from './fixture.test-help.ts';

const all = { click: true, tug: true, gap: true, halves: true, bend: true, panel: true };
function bench(): TestBench {
  return new TestBench().do(
    { kind: 'put-part', part: testPart('board', 'board'), basedOn: 0 },
    { kind: 'put-part', part: testPart('processor-65', 'cpu'), basedOn: 0 },
    { kind: 'put-part', part: testPart('card-8', 'old', { change: 'removed' }), basedOn: 0 },
    { kind: 'put-part', part: testPart('card-88', 'card', { change: 'added' }), basedOn: 0 },
    { kind: 'put-part', part: testPart('drive-35', 'd1'), basedOn: 0 },
    { kind: 'put-part', part: testPart('drive-35', 'd2'), basedOn: 0 },
  );
}
const harness = (on: TestBench) => {
  let count = 0;
  for (const cable of likelyHarness(on.job, () => uuid(500 + (count += 1))))
    on.do({ kind: 'put-cable', cable, basedOn: 0 });
};
const choose = (on: TestBench, modelId = 'corvane-750-s') =>
  on.do({ kind: 'set-choice', choice: { kind: 'replace', modelId, known: [], reason: 'fits' }, basedOn: 0 });

describe('a likely harness', () => {
  it('serves each present inlet once, drives on one chain, and leaves what is recorded alone', () => {
    const on = bench();
    harness(on);
    expect(on.job.cables.map((cable) => [cable.label, cable.plugs.map((plug) => plug.kind)])).toEqual([
      ['A', ['main-20+4']],
      ['B', ['cpu-4+4']],
      ['C', ['card-6+2']],
      ['D', ['sata', 'sata']],
    ]);
    const served = on.job.cables.flatMap((cable) => cable.plugs.map((plug) => plug.inletId));
    expect(new Set(served).size).toBe(served.length);
    expect(likelyHarness(on.job, () => uuid(1))).toEqual([]);
    on.do({ kind: 'put-part', part: testPart('drive-35', 'd3'), basedOn: 0 });
    expect(likelyHarness(on.job, () => uuid(1)).map((cable) => cable.label)).toEqual(['E']);
  });
});

describe('steps', () => {
  it('take the supply out in the order of the work, with what stands in the way in this case', () => {
    const on = bench();
    harness(on);
    choose(on).do({
      kind: 'edit-sheet',
      basedOn: on.job.sheet.version,
      changes: { hindrances: ['radiator', 'tray', 'latch', 'heavy', 'clips', 'tight'] },
    });
    const cable = on.job.cables[0]!;
    on.do({
      kind: 'put-cable',
      basedOn: 1,
      cable: {
        id: cable.id,
        label: cable.label,
        socketLabel: '',
        plugs: cable.plugs,
        way: 'hole 2, edge clip',
        tiesToCut: 3,
      },
    });
    const kinds = (phase: 'take-out' | 'refit') => stepsOf(on.job, on.view().cabling, phase).map((step) => step.kind);
    expect(kinds('take-out')).toEqual([
      'power-off',
      'strap',
      'two-people',
      'panel-off',
      'cut-ties',
      'unplug',
      'radiator-off',
      'unplug',
      'unplug',
      'unplug',
      'unplug',
      'part-out',
      'free-way',
      'tray-out',
      'latch',
      'screws-out',
      'last-look',
      'mark-old',
    ]);
    expect(kinds('refit')).toEqual([
      'still-out',
      'bag-rest',
      ...on.view().cabling.plan!.cables.map(() => 'supply-end'),
      'fan-side',
      'screws-in',
      'tray-in',
      'part-in',
      'lay-way',
      'plug',
      'plug',
      'plug',
      'plug',
      'plug',
      'plug',
      'radiator-on',
      'tie-free',
      'tie',
      'note-ways',
      'recheck',
      'panel-on',
      'rocker-on',
    ]);
    const steps = stepsOf(on.job, on.view().cabling, 'take-out');
    expect(steps.find((step) => step.kind === 'free-way')?.way).toEqual(['edge clip', 'hole 2']);
    expect(stepsOf(on.job, on.view().cabling, 'refit').find((step) => step.kind === 'lay-way')?.way).toEqual([
      'hole 2',
      'edge clip',
    ]);
    // Each cable goes into its own socket of the supply, by its name.
    const ends = stepsOf(on.job, on.view().cabling, 'refit').filter(({ kind }) => kind === 'supply-end');
    expect(new Set(ends.map(({ socket }) => socket)).size).toBe(ends.length);
    expect(ends.map(({ cable, socket }) => [cable, socket])).toEqual(
      on.view().cabling.plan!.cables.map(({ code, socketLabel }) => [code, socketLabel]),
    );
    expect(steps.find((step) => step.kind === 'cut-ties')?.count).toBe(3);
    expect(new Set(steps.map((step) => step.id)).size).toBe(steps.length);
    for (const step of [...steps, ...stepsOf(on.job, on.view().cabling, 'refit')])
      expect(`${stepText(step)} ${stepCaution(step) ?? ''}`).not.toMatch(/undefined|null|NaN|\(\)/);
    expect(wayPoints('a; b > c,, d')).toEqual(['a', 'b', 'c', 'd']);
  });
  it('unplug the old supply at its own end too, behind it only where there is room, and bag its cables', () => {
    const on = bench();
    harness(on);
    choose(on);
    const { version, likely: _likely, ...cable } = on.job.cables[1]!;
    on.do({ kind: 'put-cable', basedOn: version, cable: { ...cable, socketLabel: 'CPU 1' } });
    const kinds = () => stepsOf(on.job, on.view().cabling, 'take-out').map(({ kind }) => kind);
    const end = stepsOf(on.job, on.view().cabling, 'take-out').find(({ kind }) => kind === 'old-end')!;
    expect(stepText(end)).toBe("Cable B out of the old supply's socket CPU 1");
    expect(kinds().indexOf('old-end')).toBeLessThan(kinds().indexOf('screws-out'));
    on.do({ kind: 'edit-sheet', basedOn: on.job.sheet.version, changes: { hindrances: ['tight'] } });
    expect(kinds().indexOf('old-end')).toBeGreaterThan(kinds().indexOf('last-look'));
    expect(kinds().slice(-2)).toEqual(['bag-old', 'mark-old']);
  });
  it('give a tick to the piece in its socket, not to its code', () => {
    const on = bench();
    choose(on);
    const ends = () => stepsOf(on.job, on.view().cabling, 'refit').filter(({ kind }) => kind === 'supply-end');
    for (const { id } of ends()) on.do({ kind: 'tick-step', stepId: id });
    expect(ends().every(({ done }) => done !== null)).toBe(true);
    const before = new Map(ends().map((end) => [end.id, end.cable]));
    const card = on.job.parts.find(({ id }) => id === 'card')!;
    const { version, ...part } = card;
    on.do({
      kind: 'put-part',
      part: { ...testPart('card-888', 'card', { change: 'added' }), id: part.id },
      basedOn: version,
    });
    const open = ends().filter(({ done }) => done === null);
    expect(open.length).toBeGreaterThan(0);
    expect(open.every(({ id }) => !before.has(id))).toBe(true);
  });
  it('unplug only what leaves the machine when the supply is kept', () => {
    const on = bench();
    harness(on);
    const steps = stepsOf(on.job, on.view().cabling, 'take-out');
    expect(steps.filter((step) => step.kind === 'unplug').map((step) => step.inlet?.id)).toEqual(['old-1']);
    expect(steps.some((step) => step.kind === 'screws-out')).toBe(false);
  });
  it('are ticked, taken back, and put in another order; those that protect stay first', () => {
    const on = bench();
    choose(on);
    const ids = () => stepsOf(on.job, on.view().cabling, 'take-out').map((step) => step.id);
    const natural = ids();
    on.do({ kind: 'tick-step', stepId: 'take-out:strap' }, { kind: 'tick-step', stepId: 'take-out:strap' });
    expect(on.job.steps).toHaveLength(1);
    expect(stepsOf(on.job, on.view().cabling, 'take-out').find((step) => step.kind === 'strap')?.done).toMatchObject({
      by: 'mara',
    });
    on.do({ kind: 'untick-step', stepId: 'take-out:strap' });
    expect(on.job.steps).toEqual([]);
    const wanted = natural.slice(2).reverse();
    on.do({ kind: 'order-steps', phase: 'take-out', stepIds: wanted, basedOn: 0 });
    expect(ids()).toEqual([...natural.slice(0, 2), ...wanted]);
    expect(on.try({ kind: 'order-steps', phase: 'take-out', stepIds: [], basedOn: 0 })).toMatchObject({
      code: 'stale',
    });
    // A step that comes later stands behind the one it naturally follows.
    on.do({ kind: 'edit-sheet', basedOn: on.job.sheet.version, changes: { hindrances: ['tray'] } });
    const now = ids();
    expect(now.indexOf('take-out:tray-out')).toBe(
      now.indexOf(natural[natural.indexOf('take-out:screws-out') - 1]!) + 1,
    );
  });
  it('know a connector as done by its seat, and the recheck by all of them', () => {
    const on = bench();
    choose(on);
    const rows = on.view().cabling.rows;
    for (const row of rows)
      on.do({
        kind: 'put-seat',
        basedOn: 0,
        seat: { inletId: row.inletId, cableCode: row.cableCode!, plugIndex: row.plugIndex!, ...all },
      });
    const recheck = () => stepsOf(on.job, on.view().cabling, 'refit').find((step) => step.kind === 'recheck')!.done;
    expect(
      stepsOf(on.job, on.view().cabling, 'refit')
        .filter((step) => step.kind === 'plug')
        .every((step) => step.done !== null),
    ).toBe(true);
    expect(recheck()).toBeNull();
    on.do({ kind: 'recheck-seats', inletIds: rows.map((row) => row.inletId) });
    expect(recheck()).toMatchObject({ by: 'mara' });
    // Touched again, it is to be looked at again.
    const first = on.job.seats[0]!;
    on.do({
      kind: 'put-seat',
      basedOn: first.version,
      seat: { inletId: first.inletId, cableCode: first.cableCode, plugIndex: first.plugIndex, ...all },
    });
    expect(recheck()).toBeNull();
    expect(on.view().openPoints.map((point) => point.code)).toContain('not-rechecked');
  });
});

describe('what a connector is looked at for', () => {
  it('both halves of split plugs, bend and panel at a 16-pin one', () => {
    expect(seatChecks('sata', 'sata')).toEqual(['click', 'tug', 'gap']);
    expect(seatChecks('cpu-8', 'cpu-4+4')).toContain('halves');
    expect(seatChecks('cpu-4', 'cpu-4+4')).not.toContain('halves');
    expect(seatChecks('card-8', 'card-6+2')).toContain('halves');
    expect(seatChecks('card-6', 'card-6+2')).not.toContain('halves');
    expect(seatChecks('card-16', 'card-16')).toEqual(['click', 'tug', 'gap', 'bend', 'panel']);
  });
  it('is not seated while one of them is left', () => {
    const on = bench();
    choose(on);
    const row = on.view().cabling.rows.find((item) => item.plugKind === 'cpu-4+4')!;
    const put = (changes: Partial<Seat>, basedOn: number) =>
      on.do({
        kind: 'put-seat',
        basedOn,
        seat: { inletId: row.inletId, cableCode: row.cableCode!, plugIndex: row.plugIndex!, ...all, ...changes },
      });
    put({ halves: false }, 0);
    const state = () => on.view().cabling.rows.find((item) => item.inletId === row.inletId)?.state;
    expect(state()).toBe('to-seat');
    put({ bend: false, panel: false }, 1);
    expect(state()).toBe('seated');
  });
});

describe('a plug moved by hand', () => {
  it('stays through changes, is told where it breaks a rule, and goes with its inlet', () => {
    const on = bench();
    choose(on);
    const drive = () => on.view().cabling.rows.find((row) => row.inletId === 'd1-1')!;
    const was = drive();
    const other = was.plugIndex === 0 ? 1 : 0;
    on.do({
      kind: 'put-pin',
      basedOn: 0,
      pin: { inletId: 'd1-1', kitCableId: was.kitCableId!, copy: was.copy!, plugIndex: other, socketLabel: 'DRIVE 3' },
    });
    expect(drive()).toMatchObject({ plugIndex: other, socketLabel: 'DRIVE 3', pinned: true });
    expect(
      on.try({
        kind: 'put-pin',
        basedOn: 0,
        pin: { inletId: 'd1-1', kitCableId: 'sata', copy: 0, plugIndex: 0, socketLabel: null },
      }),
    ).toMatchObject({ code: 'stale' });
    expect(
      on.try({
        kind: 'put-pin',
        basedOn: 0,
        pin: { inletId: 'ghost', kitCableId: 'sata', copy: 0, plugIndex: 0, socketLabel: null },
      }),
    ).toMatchObject({ code: 'unknown-reference' });
    on.do({
      kind: 'put-pin',
      basedOn: 0,
      pin: { inletId: 'd2-1', kitCableId: 'cpu', copy: 0, plugIndex: 0, socketLabel: null },
    });
    expect(on.view().cabling.rows.find((row) => row.inletId === 'd2-1')?.state).toBe('wrong');
    expect(on.view().openPoints).toContainEqual(
      expect.objectContaining({ code: 'inlet-wrong', key: 'inlet-wrong:d2-1' }),
    );
    expect(on.view().stations.find((station) => station.id === 'cables')?.state).toBe('needs-you');
    on.do({ kind: 'drop-part', partId: 'd2', basedOn: 1 });
    expect(on.job.pins.map((pin) => pin.inletId)).toEqual(['d1-1']);
    on.do({ kind: 'drop-pin', inletId: 'd1-1', basedOn: 1 });
    expect(drive().pinned).toBe(false);
  });
});

describe('the bags in a plan', () => {
  const spare = (ends: readonly (number | 'none' | null)[]): CableBags => ({
    ...noBags,
    cables: [
      {
        id: uuid(9),
        version: 1,
        label: 'BAG-9',
        place: '',
        family: 'card',
        cameWith: '',
        note: '',
        gauge: null,
        twoEnded: false,
        codedWatts: null,
        plugs: [{ kind: 'card-6+2', millimetres: 700, ends }],
      },
    ],
  });
  // A supply whose second card cable was lost, in a shop that lets no two cards share one.
  const supplies = testShop.supplies.map((model) =>
    model.id === 'corvane-750-s'
      ? {
          ...model,
          kit: {
            ...model.kit,
            cables: model.kit.cables.map((cable) => (cable.id === 'card' ? { ...cable, count: 1 } : cable)),
          },
        }
      : model,
  );
  const settings = { ...testShop.settings, choosing: { ...testShop.settings.choosing, sharedCardCable: false } };
  const cabling = (bags: CableBags) =>
    viewJob(choose(bench()).job, { ...testShop, settings, supplies, bags }, { candidates: [] }).cabling;
  it('are used only where the cable is safe on this supply, by its wires or by a proof', () => {
    const open = (bags: CableBags) => cabling(bags).rows.filter((row) => row.state === 'open').length;
    const lacking = open(noBags);
    expect(lacking).toBe(1);
    expect(open(spare([]))).toBe(lacking);
    const proved: CableBags = {
      ...spare([]),
      proofs: [{ cableId: uuid(9), modelId: 'corvane-750-s', by: 'mara', at: '2026-01-01T00:00:00.000Z', note: '' }],
    };
    expect(open(proved)).toBe(0);
    expect(
      cabling(proved)
        .plan?.cables.filter((cable) => cable.spare)
        .map((cable) => cable.kitCableId),
    ).toEqual([`bag:${uuid(9)}`]);
    const harmful: CableBags = {
      ...spare([1, 2, 3, 4, 5, 6, 7, 8]),
      proofs: proved.proofs,
      pinouts: [
        {
          id: 'x',
          version: 1,
          name: 'X',
          supplies: ['corvane-750-s'],
          sockets: [{ family: 'card', pins: ['G', '12', 'G', 'G', '12', 'G', '12', 'G'] }],
        },
      ],
    };
    expect(cabling(harmful).kit?.cables.some((cable) => cable.spare === true)).toBe(false);
  });
});

describe('before against after, tags and schedule', () => {
  it('tell what is new, what was replaced, what is gone and what nobody recorded', () => {
    const on = bench();
    harness(on);
    on.do({ kind: 'drop-cable', cableId: on.job.cables.find((cable) => cable.label === 'B')!.id, basedOn: 1 });
    choose(on);
    const words = Object.fromEntries(
      harnessChanges(on.job, on.view().cabling).map((change) => [change.inletId, change.word]),
    );
    expect(words).toEqual({
      'board-1': 'replaced',
      'board-2': 'not-recorded',
      'card-1': 'new',
      'card-2': 'new',
      'd1-1': 'replaced',
      'd2-1': 'replaced',
      'old-1': 'gone',
    });
    expect(new Set(Object.values(harnessWordText)).size).toBe(Object.keys(harnessWordText).length);
    const kept = bench();
    harness(kept);
    expect(harnessChanges(kept.job, kept.view().cabling).filter((change) => change.word === 'same')).toHaveLength(4);
    expect(harnessChanges(kept.job, kept.view().cabling).find((change) => change.inletId === 'card-1')?.word).toBe(
      'open',
    );
  });
  it('give a tag to both ends of each cable, and a line to each inlet', () => {
    const on = bench();
    choose(on);
    const { cabling } = on.view();
    const tags = tagsOf(cabling);
    expect(tags.filter((tag) => tag.end === 'supply')).toHaveLength(cabling.plan!.cables.length);
    expect(tags.filter((tag) => tag.end === 'device')).toHaveLength(cabling.rows.length);
    const lines = scheduleOf(on.job, cabling, []);
    expect(lines.map((line) => line.inletLabel)).toEqual(cabling.rows.map((row) => row.label));
    expect(lines.every((line) => line.source === 'own' && line.slackMillimetres !== null)).toBe(true);
  });
});
