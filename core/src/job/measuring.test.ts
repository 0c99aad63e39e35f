import { describe, expect, it } from 'vitest';
import { asRead, usualOutputs } from '../machine/index.ts';
import { boardSensorId } from '../measure/index.ts';
import type { RailName } from '../standards/index.ts';
import { bareReading, roughReadingsOf, type Act, type KeptLog } from './index.ts';
import { TestBench, uuid } from './fixture.test-help.ts';

const machine = () =>
  new TestBench()
    .part('board-84', 'board')
    .part('processor-65', 'processor')
    .part('card-8', 'card')
    .do({
      kind: 'put-supply',
      supply: {
        name: 'Old',
        label: {
          ratingWatts: 450,
          rails: [{ label: '12V', rail: '+12', amps: 36 }],
          combined: [],
          shape: 'ATX',
          guide: '2.x',
          grade: 'none',
          modular: 'fixed',
          has16Pin: false,
        },
      },
      basedOn: 0,
    });
const reading = (number: number, volts: number, changes: object = {}) => ({
  id: uuid(number),
  phase: 'before' as const,
  subject: '+12' as const,
  condition: 'work' as const,
  value: { kind: 'figure' as const, figure: volts },
  instrumentId: 'meter',
  ...bareReading,
  ...changes,
});
const probe = (pins: readonly [number, number][]) => ({
  id: uuid(90),
  label: 'Borrowed',
  plug: 'card-8' as const,
  pins: pins.map(([pin, figure]) => ({ pin, value: { kind: 'figure' as const, figure } })),
  note: '',
});
const log: Omit<KeptLog, 'by' | 'at' | 'version'> = {
  id: uuid(80),
  name: 'evening.csv',
  phase: 'before',
  rows: 3,
  skipped: 0,
  lastsSeconds: 2,
  eventsInAll: 0,
  events: [],
  channels: [
    {
      rail: '+12',
      count: 3,
      meanVolts: 12,
      lowestVolts: 11.9,
      highestVolts: 12.1,
      deviationVolts: 0.1,
      noiseVolts: 0.1,
      driftVoltsPerHour: 0,
      outsideSeconds: 0,
      curve: { seconds: [0, 1, 2], low: [12, 11.9, 12], high: [12, 12, 12.1] },
    },
  ],
};

describe('a correction', () => {
  it('strikes the old figure, keeps it, and lets the new one speak', () => {
    const bench = machine().do({ kind: 'take-reading', reading: reading(1, 11.2) });
    expect(bench.view().before.verdicts[0]).toMatchObject({ word: 'fail', mean: 11.2 });
    bench.do({ kind: 'correct-reading', reading: reading(2, 11.9, { replaces: uuid(1) }) });
    expect(bench.job.readings).toMatchObject([
      { id: uuid(1), struckAt: expect.any(String) as string },
      { id: uuid(2), struckAt: null, replaces: uuid(1) },
    ]);
    expect(bench.view().before.verdicts[0]).toMatchObject({ word: 'pass', mean: 11.9, count: 1 });
  });
  it('names a reading that is there; a plain reading corrects nothing', () => {
    const bench = machine();
    expect(bench.try({ kind: 'correct-reading', reading: reading(2, 11.9, { replaces: uuid(1) }) })).toMatchObject({
      code: 'unknown-reference',
      path: 'reading.replaces',
    });
    expect(bench.try({ kind: 'correct-reading', reading: reading(2, 11.9) })).toMatchObject({
      code: 'unknown-reference',
    });
    bench.do({ kind: 'take-reading', reading: reading(1, 12) });
    expect(bench.try({ kind: 'take-reading', reading: reading(2, 11.9, { replaces: uuid(1) }) })).toMatchObject({
      code: 'unknown-reference',
    });
  });
});

describe('load lines of a job', () => {
  it('take the amps that were entered, and forecast at the planned load', () => {
    const bench = machine();
    [
      [2, 12.0],
      [8, 11.88],
      [14, 11.76],
      [20, 11.64],
    ].forEach(([amps, volts], index) =>
      bench.do({ kind: 'take-reading', reading: reading(index + 1, volts!, { loadAmps: amps }) }),
    );
    const [twelve] = bench.view().lines.before.forecasts;
    expect(twelve!.line).toMatchObject({ estimated: false, resistanceOhms: expect.closeTo(0.02, 6) as number });
    expect(twelve!.planned.amps).toBeCloseTo(bench.view().load.planned.rails['+12'].amps, 9);
    expect(twelve!.planned.volts).toBeCloseTo(12.04 - 0.02 * twelve!.planned.amps, 6);
    bench.part('encoder-6', 'encoder', { change: 'added' });
    expect(bench.view().lines.before.forecasts[0]!.planned.volts).toBeLessThan(twelve!.planned.volts);
  });
  it('estimate the amps from the parts where nobody entered them, and say so', () => {
    const bench = machine().read(1, '+12', 'idle', 11.95).read(2, '+12', 'work', 11.7);
    const { line } = bench.view().lines.before.forecasts[0]!;
    expect(line.estimated).toBe(true);
    expect(line.points[1]!.amps).toBeCloseTo(bench.view().load.present.rails['+12'].amps, 6);
    expect(line.points[0]!.amps).toBeLessThan(line.points[1]!.amps);
  });
  it('share the watts of the whole machine as the parts share them, and count nothing off load', () => {
    const bench = machine().do(
      { kind: 'take-reading', reading: reading(1, 12, { condition: 'off-load' }) },
      { kind: 'take-reading', reading: reading(2, 11.8, { loadWatts: 200 }) },
    );
    const { present } = bench.view().load;
    const { points } = bench.view().lines.before.forecasts[0]!.line;
    expect(points[0]).toMatchObject({ amps: 0, estimated: false });
    expect(points[1]!.amps).toBeCloseTo((200 * present.rails['+12'].watts) / present.sustainedWatts / 12, 9);
  });
  it('leave out what was struck, and are none without parts', () => {
    const bench = machine()
      .read(1, '+12', 'idle', 11.95)
      .read(2, '+12', 'work', 11.7)
      .do({ kind: 'strike-reading', id: uuid(2) });
    expect(bench.view().lines.before.forecasts).toEqual([]);
    expect(
      new TestBench().read(1, '+12', 'idle', 12).read(2, '+12', 'work', 11.7).view().lines.before.forecasts,
    ).toEqual([]);
  });
  it('name the cross-load effect', () => {
    const bench = machine()
      .read(1, '+12', 'idle', 11.9)
      .read(2, '+12', 'work', 11.6)
      .read(3, '+5', 'idle', 5.02)
      .read(4, '+5', 'work', 5.12);
    expect(bench.view().lines.before.crossLoad).toMatchObject({ fiveRisesVolts: expect.closeTo(0.1, 6) as number });
  });
});

describe('what a line or a log says of steadiness', () => {
  const steady = (bench: TestBench) => bench.view().observations.find((item) => item.checkId === 'm-steady')?.outcomeId;
  it("is that it sags, when the line leaves the band at the machine's own load", () => {
    const line = (ohms: number) =>
      [0, 3, 6].reduce(
        (bench, amps) =>
          bench.do({
            kind: 'take-reading',
            reading: reading(amps + 1, Number((11.95 - ohms * amps).toFixed(3)), { loadAmps: amps, condition: 'idle' }),
          }),
        machine(),
      );
    expect(steady(line(0.08))).toBe('sags');
    expect(steady(line(0.004))).not.toBe('sags');
  });
  it('is that it wanders, when a log was outside the band, until the log goes', () => {
    const outside = (seconds: number, phase: 'before' | 'after' = 'before') => ({
      ...log,
      phase,
      channels: log.channels.map((channel) => ({ ...channel, outsideSeconds: seconds })),
    });
    expect(steady(machine().do({ kind: 'put-log', log: outside(0), basedOn: 0 }))).toBeUndefined();
    expect(steady(machine().do({ kind: 'put-log', log: outside(2, 'after'), basedOn: 0 }))).toBeUndefined();
    const bench = machine().do({ kind: 'put-log', log: outside(2), basedOn: 0 });
    expect(steady(bench)).toBe('wanders');
    bench.do({ kind: 'drop-log', logId: log.id, basedOn: 1 });
    expect(steady(bench)).toBeUndefined();
  });
});

describe('walks and logs of a job', () => {
  it('are put, changed on the version that was seen, and dropped', () => {
    const bench = machine().do({ kind: 'put-probe', probe: probe([[1, 12]]), basedOn: 0 });
    const seen = bench.job.probes[0]!.version;
    bench.do({
      kind: 'put-probe',
      probe: probe([
        [1, 12],
        [2, 12],
      ]),
      basedOn: 1,
    });
    expect(bench.job.probes).toMatchObject([
      { version: bench.job.revision, by: 'mara', pins: [{ pin: 1 }, { pin: 2 }] },
    ]);
    expect(bench.try({ kind: 'put-probe', probe: probe([]), basedOn: seen })).toMatchObject({ code: 'stale' });
    bench.do({ kind: 'drop-probe', probeId: uuid(90), basedOn: 2 });
    expect(bench.job.probes).toEqual([]);
    expect(bench.try({ kind: 'drop-probe', probeId: uuid(90), basedOn: 2 })).toMatchObject({ code: 'not-found' });
    bench.do({ kind: 'put-log', log, basedOn: 0 });
    expect(bench.job.logs).toMatchObject([{ name: 'evening.csv', version: bench.job.revision }]);
    expect(bench.try({ kind: 'drop-log', logId: uuid(80), basedOn: 0 })).toMatchObject({ code: 'stale' });
    bench.do({ kind: 'drop-log', logId: uuid(80), basedOn: 1 });
    expect(bench.job.logs).toEqual([]);
  });
});

describe('the search in a job', () => {
  const cuts = () =>
    machine().do({ kind: 'edit-sheet', changes: { button: 'cuts-load', course: 'slowly' }, basedOn: 1 });
  it('goes into the next round when a repair changed nothing, with what is known so far', () => {
    const bench = cuts();
    expect(bench.view().round).toBe(1);
    const before = bench.view().suspects[0]!.faultId;
    bench.do({ kind: 'note-outcome', id: uuid(1), checkId: 'repair.replace-supply', outcomeId: 'same' });
    expect(bench.view()).toMatchObject({ round: 2 });
    expect(bench.view().suspects[0]!.faultId).not.toBe(before);
    expect(bench.view().observations.map((item) => item.checkId)).toEqual(
      expect.arrayContaining(['told-button', 'told-course', 'repair.replace-supply']),
    );
    bench.do({ kind: 'take-back-outcome', id: uuid(1) });
    expect(bench.view()).toMatchObject({ round: 1 });
  });
  it('keeps an outcome that the knowledge does not know, and does not count it', () => {
    const bench = cuts();
    const before = bench.view().suspects.map((suspect) => suspect.probability);
    // Noted by a shop with other knowledge, and come here by a file.
    const noted = (id: number, checkId: string, outcomeId: string) => ({
      id: uuid(id),
      checkId,
      outcomeId,
      instrumentId: null,
      takenBackAt: null,
      by: 'mara',
      at: bench.job.updatedAt,
    });
    const strange = [noted(1, 'smell-of-the-sea', 'salty'), noted(2, 'look-dust', 'sandy')];
    bench.job = { ...bench.job, outcomes: [...bench.job.outcomes, ...strange] };
    expect([...bench.view().notCounted].sort()).toEqual(['look-dust', 'smell-of-the-sea']);
    expect(bench.view().suspects.map((suspect) => suspect.probability)).toEqual(before);
    expect(bench.view().observations).toHaveLength(5);
  });
  it('takes an outcome by an instrument of the shop only', () => {
    expect(
      cuts().try({
        kind: 'note-outcome',
        id: uuid(1),
        checkId: 'm-tester',
        outcomeId: 'all-good',
        instrumentId: 'borrowed',
      }),
    ).toMatchObject({ code: 'unknown-reference', path: 'instrumentId' });
    expect(
      cuts()
        .do({ kind: 'note-outcome', id: uuid(1), checkId: 'm-tester', outcomeId: 'all-good', instrumentId: 'meter' })
        .view()
        .observations.at(-1),
    ).toMatchObject({ instrumentId: 'meter' });
  });
  it('shows which noted answer a measured one stands before', () => {
    const bench = cuts()
      .do({ kind: 'note-outcome', id: uuid(1), checkId: 'm-rails-work', outcomeId: 'in' })
      .read(2, '+12', 'work', 10.9);
    expect(bench.view().observations.find((item) => item.checkId === 'm-rails-work')).toMatchObject({
      outcomeId: 'out',
      source: 'measure',
      instrumentId: 'meter',
      insteadOf: { notedId: uuid(1), outcomeId: 'in' },
    });
  });
  it('names a contradiction between what was told and what was measured', () => {
    const bench = machine()
      .do({ kind: 'note-outcome', id: uuid(1), checkId: 'look-standby-light', outcomeId: 'lit' })
      .read(2, '+5sb', 'off-load', 0.02);
    expect(
      bench
        .view()
        .contradiction?.pair.map((item) => item.checkId)
        .sort(),
    ).toEqual(['look-standby-light', 'm-standby']);
    bench.do({ kind: 'strike-reading', id: uuid(2) });
    expect(bench.view().contradiction).toBeNull();
  });
  it('finds nothing wrong with a machine that works, once it was looked at', () => {
    const bench = machine()
      .do(
        { kind: 'edit-sheet', changes: { button: 'works' }, basedOn: 1 },
        { kind: 'note-outcome', id: uuid(1), checkId: 'look-drive', outcomeId: 'listed' },
      )
      .read(2, '+12', 'idle', 12.02)
      .read(3, '+12', 'work', 11.96)
      .read(4, '+5', 'work', 5.02)
      .do(
        { kind: 'note-outcome', id: uuid(5), checkId: 'd-swap', outcomeId: 'same' },
        { kind: 'note-outcome', id: uuid(6), checkId: 'look-dust', outcomeId: 'clean' },
        { kind: 'note-outcome', id: uuid(7), checkId: 'm-cpu-temp', outcomeId: 'fine' },
      );
    expect(bench.view().suspects[0]!.faultId).toBe('well');
    expect(bench.view().suspects[0]!.probability).toBeGreaterThan(0.75);
  });
});

const noted = (bench: TestBench, checkId: string) =>
  bench.view().observations.find((observation) => observation.checkId === checkId)?.outcomeId;

describe('a machine that is off', () => {
  const off = () =>
    machine()
      .read(1, '+12', 'idle', 0.03)
      .read(2, '+5', 'idle', 0.1)
      .read(3, '+3.3', 'idle', 0.0)
      .read(4, '-12', 'idle', -0.01)
      .read(5, '+5sb', 'idle', 5.05);
  it('convicts nobody: it is asked whether the supply was started, and standby counts alone', () => {
    const bench = off();
    expect(bench.view().before.verdicts.map(({ subject, word, reason }) => [subject, word, reason])).toEqual([
      ['+12', 'cannot-tell', 'not-started'],
      ['+5', 'cannot-tell', 'not-started'],
      ['+3.3', 'cannot-tell', 'not-started'],
      ['-12', 'cannot-tell', 'not-started'],
      ['+5sb', 'pass', 'inside'],
    ]);
    expect(noted(bench, 'm-rails-off')).toBeUndefined();
    expect(noted(bench, 'm-steady')).toBeUndefined();
    expect(noted(bench, 'm-standby')).toBe('in');
    expect(bench.view().standing.word).not.toBe('failing');
  });
  it('does not spoil what was read while it ran', () => {
    const bench = off().read(6, '+12', 'work', 12.02).read(7, '+12', 'work', 12.01);
    expect(noted(bench, 'm-rails-work')).toBe('in');
    expect(noted(bench, 'm-steady')).toBe('steady');
    expect(bench.view().lines.before.forecasts).toEqual([]);
  });
  it('counts once its start line was tied and nothing came', () => {
    const bench = off().do({
      kind: 'note-outcome',
      id: uuid(40),
      checkId: 'm-offload',
      outcomeId: 'nothing',
      instrumentId: null,
    });
    expect(bench.view().before.verdicts[0]).toMatchObject({ word: 'fail', reason: 'outside-low' });
    expect(noted(bench, 'm-rails-off')).toBe('out');
  });
  it('is not what one dead rail beside others that are there means', () => {
    const bench = machine().read(1, '+12', 'idle', 12).read(2, '+3.3', 'idle', 0.02);
    expect(bench.view().before.verdicts.map(({ word }) => word)).toEqual(['pass', 'fail']);
  });
  it('standby that is too high is an outcome, and a danger', () => {
    const bench = machine().read(1, '+5sb', 'off-load', 5.8);
    expect(noted(bench, 'm-standby')).toBe('high');
    expect(bench.view().interlocks.length).toBeGreaterThan(0);
  });
});

describe('one fail alone', () => {
  it('is not yet a failing supply, two are', () => {
    const bench = machine().read(1, '+12', 'work', 11.2);
    expect(bench.view().standing).toMatchObject({
      word: 'cannot-tell',
      settle: expect.arrayContaining(['confirm-fail']) as string[],
    });
    bench.read(2, '+12', 'work', 11.21);
    expect(bench.view().standing).toMatchObject({ word: 'failing' });
  });
});

describe('a supply of which only the rating was read', () => {
  const unread = (ratingWatts: number) => {
    const bench = machine();
    const { name, label } = bench.job.supply!;
    return bench.do({
      kind: 'put-supply',
      supply: { name, label: { ...label, ratingWatts, ...usualOutputs(ratingWatts) } },
      basedOn: bench.job.supply!.version,
    });
  };
  const atWork = (bench: ReturnType<typeof machine>) =>
    bench.read(1, '+12', 'work', 12.02).read(2, '+5', 'work', 5.01).read(3, '+3.3', 'work', 3.31);

  it('is never enough before its label is, whatever was read at work', () => {
    const bench = atWork(unread(850));
    expect(bench.view().standing).toEqual({ word: 'cannot-tell', settle: ['read-label'] });
    const { name, label } = bench.job.supply!;
    bench.do({
      kind: 'put-supply',
      supply: { name, label: { ...label, ...asRead(label) } },
      basedOn: bench.job.supply!.version,
    });
    expect(bench.view().standing.word).toBe('enough');
  });
  it('is too small where its rating says so, in the search as well', () => {
    const bench = unread(100);
    expect(bench.view().standing).toMatchObject({
      word: 'too-small',
      finding: { code: expect.stringMatching(/lasting|spin-up|peak/) as string },
    });
    expect(noted(bench, 'c-load')).toBe('over-100');
  });
  it('is not too small by amps that nobody read, and they say nothing in the search', () => {
    const bench = unread(450);
    const { name, label } = bench.job.supply!;
    const rails = label.rails.map((rail) => (rail.rail === '+12' ? { ...rail, amps: 5 } : rail));
    bench.do({ kind: 'put-supply', supply: { name, label: { ...label, rails } }, basedOn: bench.job.supply!.version });
    expect(bench.view().load.plannedAssessment?.word).toBe('cannot-tell');
    expect(bench.view().standing).toMatchObject({ word: 'cannot-tell', settle: ['read-label', 'measure-at-work'] });
    expect(noted(bench, 'c-load')).toBeUndefined();
  });
});

describe('what the board’s own sensor told', () => {
  const told = (id: number, subject: RailName, figure: number): Act => ({
    kind: 'take-reading',
    reading: {
      ...bareReading,
      ...{ id: uuid(id), phase: 'before', subject, condition: 'idle', instrumentId: boardSensorId },
      value: { kind: 'figure', figure },
    },
  });
  const sensed = [told(90, '+12', 13.9), told(91, '+5', 4.1), told(92, '+3.3', 3.3)];

  it('judges nothing, moves nobody, and bars nothing, however far it is off', () => {
    const without = new TestBench().part('board', 'board').part('processor-65', 'cpu');
    const before = without.view();
    const view = new TestBench()
      .part('board', 'board')
      .part('processor-65', 'cpu')
      .do(...sensed)
      .view();
    expect(view.before.verdicts).toEqual([]);
    expect(view.interlocks).toEqual([]);
    expect(view.observations).toEqual(before.observations);
    expect(view.standing).toEqual(before.standing);
    expect(view.openPoints.map(({ key }) => key)).toEqual(before.openPoints.map(({ key }) => key));
  });
  it('is told until an instrument has read the rail, and stays on the record', () => {
    const bench = new TestBench().do(...sensed);
    const rough = () => roughReadingsOf(bench.job, 'before').map(({ subject }) => subject);
    expect(rough()).toEqual(['+12', '+5', '+3.3']);
    bench.read(1, '+12', 'work', 12.02);
    expect(rough()).toEqual(['+5', '+3.3']);
    expect(bench.view().before.verdicts.map(({ subject, word }) => [subject, word])).toEqual([['+12', 'pass']]);
    bench.do({ kind: 'strike-reading', id: uuid(91) });
    expect(rough()).toEqual(['+3.3']);
    expect(bench.job.readings).toHaveLength(4);
  });
});
