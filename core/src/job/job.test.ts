import { type Act, bareReading, proofsAsked } from './index.ts';
import { describe, expect, it } from 'vitest';
import { clientWords, findingSentence, openPointText } from '../wording/index.ts';
import { knowledge } from '../diagnose/knowledge.test-help.ts';
import { TestBench, testPart, uuid } from './fixture.test-help.ts';

const label = {
  ratingWatts: 450,
  rails: [
    { label: '12V', rail: '+12' as const, amps: 32 },
    { label: '5V', rail: '+5' as const, amps: 18 },
    { label: '3.3V', rail: '+3.3' as const, amps: 16 },
  ],
  combined: [],
  shape: 'ATX' as const,
  guide: '2.x' as const,
  grade: 'bronze' as const,
  modular: 'fixed' as const,
  has16Pin: false,
};
const machine = () =>
  new TestBench()
    .part('board', 'board')
    .part('processor-65', 'cpu')
    .part('drive-flat', 'drive')
    .do({ kind: 'put-supply', supply: { name: 'Old', label }, basedOn: 0 });
const source = (bench: TestBench, checkId: string) =>
  bench.view().observations.find((item) => item.checkId === checkId);

describe('acts', () => {
  it('refuse a stale version and name the current one', () => {
    const bench = machine();
    const seen = bench.job.sheet.version;
    bench.do({ kind: 'edit-sheet', changes: { title: 'One' }, basedOn: seen });
    expect(bench.try({ kind: 'edit-sheet', changes: { title: 'Two' }, basedOn: seen })).toEqual({
      code: 'stale',
      subject: 'sheet',
      basedOn: seen,
      current: bench.job.revision,
    });
    expect(bench.try({ kind: 'edit-sheet', changes: { client: 'Another field' }, basedOn: seen })).toBeNull();
    expect(bench.try({ kind: 'put-part', part: testPart('board', 'board'), basedOn: 0 })).toMatchObject({
      code: 'stale',
      current: bench.job.parts[0]!.version,
    });
    expect(bench.try({ kind: 'drop-part', partId: 'board', basedOn: 9 })).toMatchObject({ code: 'stale' });
    expect(bench.try({ kind: 'put-supply', supply: { name: '', label }, basedOn: 0 })).toMatchObject({
      code: 'stale',
      subject: 'supply',
    });
    expect(bench.job.sheet.title).toBe('One');
  });
  it('leave the job they were given untouched', () => {
    const bench = machine();
    const before = bench.job;
    const copy = structuredClone(before);
    bench.do({ kind: 'edit-sheet', changes: { words: 'other' }, basedOn: 1 }).part('optical', 'optical');
    expect(before).toEqual(copy);
  });
  it('refuse what is not there, is there twice, or is not known', () => {
    const bench = machine();
    expect(bench.try({ kind: 'strike-reading', id: uuid(9) })).toMatchObject({ code: 'not-found' });
    expect(bench.try({ kind: 'drop-part', partId: 'ghost', basedOn: 1 })).toMatchObject({ code: 'not-found' });
    expect(
      bench.try({
        kind: 'put-part',
        part: testPart('drive-flat', 'other', {
          inlets: [{ id: 'drive-1', kind: 'sata', label: 'x', optional: false }],
        }),
        basedOn: 0,
      }),
    ).toMatchObject({ code: 'duplicate' });
    expect(
      bench.try({
        kind: 'set-choice',
        choice: { kind: 'replace', modelId: 'nothing', known: [], reason: '' },
        basedOn: 0,
      }),
    ).toMatchObject({ code: 'unknown-reference' });
    expect(
      bench.try({
        kind: 'take-reading',
        reading: {
          id: uuid(1),
          phase: 'before',
          subject: '+12',
          condition: 'idle',
          value: { kind: 'figure', figure: 12 },
          instrumentId: 'lost',
          ...bareReading,
        },
      }),
    ).toMatchObject({ code: 'unknown-reference' });
    expect(
      bench.try({
        kind: 'put-seat',
        seat: {
          inletId: 'ghost',
          cableCode: 'C01',
          plugIndex: 0,
          click: true,
          tug: true,
          gap: true,
          halves: true,
          bend: true,
          panel: true,
        },
        basedOn: 0,
      }),
    ).toMatchObject({ code: 'unknown-reference' });
  });
  it('give an inlet one plug only', () => {
    const cable = (id: number, inletId: string) => ({
      kind: 'put-cable' as const,
      cable: {
        id: uuid(id),
        label: String(id),
        socketLabel: '',
        plugs: [{ kind: 'sata' as const, inletId }],
        way: '',
        tiesToCut: 0,
      },
      basedOn: 0,
    });
    const bench = machine().do(cable(1, 'drive-1'));
    expect(bench.try(cable(2, 'drive-1'))).toEqual({ code: 'duplicate', subject: 'inlet:drive-1' });
    expect(bench.try(cable(3, 'nowhere'))).toMatchObject({ code: 'unknown-reference' });
  });
  it('take plugs and ticks along when a part goes, and free them when an inlet goes', () => {
    const bench = machine().do(
      {
        kind: 'put-cable',
        cable: {
          id: uuid(1),
          label: 'D',
          socketLabel: '',
          plugs: [{ kind: 'sata', inletId: 'drive-1' }],
          way: '',
          tiesToCut: 0,
        },
        basedOn: 0,
      },
      {
        kind: 'put-seat',
        seat: {
          inletId: 'drive-1',
          cableCode: 'D',
          plugIndex: 0,
          click: true,
          tug: true,
          gap: true,
          halves: true,
          bend: true,
          panel: true,
        },
        basedOn: 0,
      },
      { kind: 'drop-part', partId: 'drive', basedOn: 1 },
    );
    expect(bench.job.seats).toEqual([]);
    expect(bench.job.cables[0]).toMatchObject({
      version: bench.job.revision,
      plugs: [{ kind: 'sata', inletId: null }],
    });
  });
  it('do not overwrite what was taken back and set again since it was seen', () => {
    const bench = machine();
    const finding = { kind: 'no-fault' as const, faultId: null, confirmed: false, note: 'first' };
    bench.do({ kind: 'set-finding', finding, basedOn: 0 });
    const seen = bench.job.finding!.version;
    bench.do({ kind: 'set-finding', finding: null, basedOn: seen });
    bench.do({ kind: 'set-finding', finding: { ...finding, note: 'second' }, basedOn: 0 });
    expect(bench.try({ kind: 'set-finding', finding: { ...finding, note: 'mine' }, basedOn: seen })).toMatchObject({
      code: 'stale',
      current: bench.job.revision,
    });
  });
  it('replace the answer that was seen, and no other', () => {
    const bench = machine();
    const answer = (id: number, instead: string | null): Act => ({
      kind: 'note-outcome',
      id: uuid(id),
      checkId: 'look-dust',
      outcomeId: 'clean',
      instead,
    });
    expect(bench.try(answer(1, null))).toBeNull();
    expect(bench.try(answer(2, null))).toMatchObject({ code: 'stale', subject: 'check:look-dust' });
    expect(bench.try(answer(3, uuid(1)))).toBeNull();
  });
  it('refuse a check, an outcome and a fault that do not exist', () => {
    const bench = machine();
    const note = (checkId: string, outcomeId: string) =>
      bench.try({ kind: 'note-outcome', id: uuid(1), checkId, outcomeId });
    expect(note('smell-of-the-sea', 'salty')).toMatchObject({ code: 'unknown-reference' });
    expect(note('look-dust', 'sandy')).toMatchObject({ code: 'unknown-reference' });
    expect(note('look-dust', 'unknown')).toBeNull();
    const finding = { kind: 'fault' as const, faultId: 'gremlins', confirmed: false, note: '' };
    expect(bench.try({ kind: 'set-finding', finding, basedOn: 0 })).toMatchObject({ path: 'finding.faultId' });
  });
  it('name a second fault beside the first, and no other', () => {
    const bench = machine();
    const set = (
      faultId: string | null,
      alsoFaultId: string | null | undefined,
      kind: 'fault' | 'no-fault' = 'fault',
    ) =>
      bench.try({
        kind: 'set-finding',
        finding: { kind, faultId, confirmed: false, note: '', alsoFaultId },
        basedOn: bench.job.finding?.version ?? 0,
      });
    const refused = { code: 'unknown-reference', path: 'finding.alsoFaultId' };
    expect(set('cpu-hot', 'gremlins')).toMatchObject(refused);
    expect(set('cpu-hot', 'cpu-hot')).toMatchObject(refused);
    expect(set(null, 'psu-weak', 'no-fault')).toMatchObject(refused);
    expect(set('cpu-hot', undefined)).toBeNull();
    expect(bench.job.finding?.alsoFaultId).toBeNull();
    // What the second one asks for is asked for as well: its cure is another supply.
    expect(bench.view().openPoints.map(({ code }) => code)).not.toContain('no-choice');
    expect(set('cpu-hot', 'psu-weak')).toBeNull();
    const { openPoints, standing } = bench.view();
    expect(openPoints.map(({ code }) => code)).toContain('no-choice');
    expect(standing).toMatchObject({ word: 'failing', faultId: 'psu-weak' });
    expect(openPoints.map(openPointText)).toContain(
      'Not proved by a cure or a swap: Processor overheats and Supply weak under load.',
    );
    const words = clientWords(bench.job, bench.view(), knowledge);
    expect(words.found[0]).toBe(
      'Two things were at fault at the same time: processor overheats and Supply weak under load.',
    );
    expect(findingSentence(knowledge, bench.job.finding)).toMatch(/ and .*, not yet proved\.$/);
  });
  it('keep one answer for each check and remember the earlier', () => {
    const bench = machine().do(
      { kind: 'note-outcome', id: uuid(1), checkId: 'look-dust', outcomeId: 'clean' },
      { kind: 'note-outcome', id: uuid(2), checkId: 'look-dust', outcomeId: 'blocked' },
    );
    expect(bench.job.outcomes.map((outcome) => outcome.takenBackAt === null)).toEqual([false, true]);
    expect(source(bench, 'look-dust')).toMatchObject({ outcomeId: 'blocked', source: 'bench' });
    bench.do({ kind: 'take-back-outcome', id: uuid(2) });
    expect(source(bench, 'look-dust')).toBeUndefined();
  });
});

describe('outcomes that arrive by themselves', () => {
  it('come from readings and leave when a reading is struck', () => {
    const bench = machine().read(1, '+12', 'idle', 11.72).read(2, '+12', 'work', 11.31);
    expect(source(bench, 'm-rails-work')).toMatchObject({ outcomeId: 'out', source: 'measure' });
    expect(source(bench, 'm-steady')).toMatchObject({ outcomeId: 'sags' });
    bench.do({ kind: 'strike-reading', id: uuid(2) });
    expect(source(bench, 'm-rails-work')).toBeUndefined();
    bench.do({ kind: 'restore-reading', id: uuid(2) });
    expect(source(bench, 'm-rails-work')).toMatchObject({ outcomeId: 'out' });
  });
  it('read the standby voltage as in, low or absent', () => {
    expect(source(machine().read(1, '+5sb', 'off-load', 5.02), 'm-standby')?.outcomeId).toBe('in');
    expect(source(machine().read(1, '+5sb', 'off-load', 4.2), 'm-standby')?.outcomeId).toBe('low');
    expect(source(machine().read(1, '+5sb', 'off-load', 0.03), 'm-standby')?.outcomeId).toBe('absent');
  });
  it('follow the load as parts change', () => {
    const bench = machine();
    expect(source(bench, 'c-load')).toMatchObject({ outcomeId: 'under-80', source: 'load' });
    bench.part('card-88', 'card');
    expect(source(bench, 'c-load')?.outcomeId).toBe('over-100');
    bench.do({ kind: 'drop-part', partId: 'card', basedOn: 1 });
    expect(source(bench, 'c-load')?.outcomeId).toBe('under-80');
  });
  it('stand in the place of a noted answer', () => {
    const bench = machine()
      .do({ kind: 'note-outcome', id: uuid(1), checkId: 'm-rails-off', outcomeId: 'in' })
      .read(2, '+12', 'idle', 11.1);
    expect(source(bench, 'm-rails-off')).toMatchObject({ outcomeId: 'out', source: 'measure' });
  });
});

describe('a whole job', () => {
  it('can be closed only when every point is settled or signed off', () => {
    const bench = machine()
      .do({ kind: 'edit-sheet', changes: { button: 'cuts-load', course: 'slowly' }, basedOn: 1 })
      .read(1, '+12', 'idle', 11.72)
      .read(2, '+12', 'work', 11.2);
    const keys = () => bench.view().openPoints.map((point) => point.code);
    expect(keys()).toContain('no-finding');
    bench.do(
      { kind: 'note-outcome', id: uuid(3), checkId: 'd-swap', outcomeId: 'cured' },
      { kind: 'set-finding', finding: { kind: 'fault', faultId: 'psu-weak', confirmed: true, note: '' }, basedOn: 0 },
    );
    expect(keys()).toEqual(['no-choice']);
    expect(bench.try({ kind: 'close', basedOn: 1 })).toEqual({ code: 'open-points', count: 1 });
    const best = bench.view().candidates[0]!;
    expect(best.fits).toBe(true);
    bench.do({
      kind: 'set-choice',
      choice: { kind: 'replace', modelId: best.model.id, known: [], reason: 'fits' },
      basedOn: 0,
    });
    expect(keys()).toEqual([
      ...bench.view().cabling.rows.map(() => 'not-seated'),
      'not-recorded',
      'take-out-open',
      'refit-open',
      ...proofsAsked(bench.job).map(() => 'not-shown'),
      'no-readings-after',
      'old-supply-unmarked',
    ]);
    for (const item of proofsAsked(bench.job))
      bench.do({ kind: 'note-proof', item, holds: true, note: '', basedOn: 0 });
    for (const { inletId } of bench.view().cabling.rows) bench.seat(inletId);
    bench
      .read(10, '+12', 'work', 12.02, 'after')
      .do({ kind: 'edit-sheet', changes: { oldSupply: 'failed' }, basedOn: 0 });
    expect(bench.view().openPoints.map(openPointText)).toContain(
      'With the new supply no reading passes yet: +12 at idle, +5 at idle, +3.3 at idle, +5 at work, +3.3 at work.',
    );
    bench
      .read(11, '+12', 'idle', 12.02, 'after')
      .read(12, '+5', 'idle', 5.02, 'after')
      .read(13, '+3.3', 'idle', 3.31, 'after')
      .read(14, '+5', 'work', 5.02, 'after')
      .read(15, '+3.3', 'work', 3.31, 'after');
    // Tying up may undo what was seated, so that it is looked at once more.
    const stages = ['not-recorded', 'take-out-open', 'refit-open'];
    expect(keys()).toEqual(['not-rechecked', ...stages]);
    bench.do({ kind: 'recheck-seats', inletIds: bench.job.seats.map((seat) => seat.inletId) });
    expect(keys()).toEqual(stages);
    // A stage that nobody ticked is passed by saying why.
    bench
      .view()
      .openPoints.forEach(({ key }, index) =>
        bench.do({ kind: 'sign-off', id: uuid(900 + index), point: key, reason: 'done before the record was begun' }),
      );
    bench.do({ kind: 'close', basedOn: 1 });
    expect(bench.job).toMatchObject({ state: 'closed', closed: { by: 'mara' } });
    expect(bench.view().stations.map((station) => station.state)).toEqual([
      'settled',
      'settled',
      'settled',
      'settled',
      'settled',
      'settled',
      'settled',
    ]);
    expect(bench.try({ kind: 'edit-sheet', changes: { title: 'x' }, basedOn: 2 })).toEqual({ code: 'closed' });
    bench.do({ kind: 'reopen', basedOn: 2 });
    expect(bench.job.state).toBe('open');
  });
  it('lets an open point be signed off with a reason, once', () => {
    const bench = machine().do({ kind: 'sign-off', id: uuid(1), point: 'no-finding', reason: 'client took it back' });
    expect(bench.try({ kind: 'sign-off', id: uuid(2), point: 'no-finding', reason: 'again' })).toMatchObject({
      code: 'duplicate',
    });
    bench.do({ kind: 'close', basedOn: 1 });
    expect(bench.job.state).toBe('closed');
  });
  it('forgets a tick when the plan sends another plug', () => {
    const bench = machine().do({
      kind: 'set-choice',
      choice: { kind: 'replace', modelId: 'corvane-650-s', known: [], reason: '' },
      basedOn: 0,
    });
    const row = bench.view().cabling.rows[0]!;
    bench.do({
      kind: 'put-seat',
      seat: {
        inletId: row.inletId,
        cableCode: 'C09',
        plugIndex: 0,
        click: true,
        tug: true,
        gap: true,
        halves: true,
        bend: true,
        panel: true,
      },
      basedOn: 0,
    });
    expect(bench.view().cabling.rows[0]!.state).toBe('to-seat');
  });
  it('says that a recorded plug does not fit', () => {
    const bench = machine().do({
      kind: 'put-cable',
      cable: {
        id: uuid(1),
        label: 'A',
        socketLabel: '',
        plugs: [{ kind: 'card-6+2', inletId: 'board-2' }],
        way: '',
        tiesToCut: 0,
      },
      basedOn: 0,
    });
    expect(bench.view().cabling.misfits).toEqual([
      { cableId: uuid(1), inletId: 'board-2', plugKind: 'card-6+2', harm: null },
    ]);
  });
  it('starts with stations that nobody touched', () => {
    expect(new TestBench().view().stations.map((station) => station.state)).toEqual(Array(7).fill('untouched'));
  });
});

describe('a job made by mistake', () => {
  const away = { kind: 'put-away' as const, reason: 'Entered twice', basedOn: 1 };
  it('is put away with who, when and why, takes nothing more, and comes back as it was', () => {
    const bench = new TestBench().part('board-84', 'board');
    const before = bench.job;
    bench.do(away);
    expect(bench.job).toMatchObject({ state: 'away', putAway: { by: 'mara', reason: 'Entered twice' } });
    expect(bench.try({ kind: 'edit-sheet', changes: { words: 'More' }, basedOn: 1 })).toEqual({ code: 'away' });
    expect(bench.try({ ...away, basedOn: bench.job.stateVersion })).toEqual({ code: 'away' });
    bench.do({ kind: 'reopen', basedOn: bench.job.stateVersion });
    expect({ ...bench.job, revision: 0, stateVersion: 0, updatedAt: '' }).toEqual({
      ...before,
      revision: 0,
      stateVersion: 0,
      updatedAt: '',
    });
  });
  it('is not put away over what somebody else did, and a closed one not at all', () => {
    const bench = new TestBench();
    bench.do(away, { kind: 'reopen', basedOn: 2 });
    expect(bench.try(away)).toMatchObject({ code: 'stale', subject: 'state' });
    bench.job = { ...bench.job, state: 'closed', closed: { by: 'mara', at: bench.job.updatedAt } };
    expect(bench.try({ ...away, basedOn: bench.job.stateVersion })).toEqual({ code: 'closed' });
  });
});
