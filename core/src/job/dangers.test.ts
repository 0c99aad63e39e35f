import { describe, expect, it } from 'vitest';
import { barring, safetyCheckId } from '../diagnose/index.ts';
import { dangerCauseText, neverText, openPointText, standingDangersText } from '../wording/index.ts';
import { bareReading, measuringBar, provingPower, type Act, type KeptLog, type Phase } from './index.ts';
import type { RailName } from '../standards/index.ts';
import { TestBench, testShop, uuid } from './fixture.test-help.ts';

const { knowledge } = testShop.model;
const safe = (id: number, dangerId: string, way: string): Act => ({
  kind: 'note-outcome',
  id: uuid(id),
  checkId: safetyCheckId(dangerId),
  outcomeId: way,
});
const ids = (on: TestBench) => on.view().interlocks.map((interlock) => interlock.danger.id);

describe('dangers of a job', () => {
  it('begin with a rail that is too high by more than the error, and not before', () => {
    expect(ids(new TestBench().read(1, '+12', 'idle', 12.59))).toEqual([]);
    // Over the limit, but not by more than the error.
    expect(ids(new TestBench().read(1, '+12', 'idle', 12.605))).toEqual([]);
    expect(ids(new TestBench().read(1, '+12', 'idle', 12.9))).toEqual(['rail-high']);
    expect(ids(new TestBench().read(1, '+12', 'idle', 10.9))).toEqual([]);
    expect(ids(new TestBench().read(1, '+5sb', 'off-load', 5.6))).toEqual(['rail-high']);
  });

  it('know that a negative rail is too high below its band', () => {
    const read = (volts: number) =>
      new TestBench().do({
        kind: 'take-reading',
        reading: {
          id: uuid(1),
          phase: 'before',
          subject: '-12',
          condition: 'idle',
          value: { kind: 'figure', figure: volts },
          instrumentId: 'meter',
          ...bareReading,
        },
      });
    expect(ids(read(-10.2))).toEqual([]);
    expect(ids(read(-14))).toEqual(['rail-high']);
    expect(dangerCauseText(knowledge, read(-14).view().interlocks[0]!.causes[0]!)).toContain('-13.2');
  });

  describe('come from a log', () => {
    const still = { count: 600, noiseVolts: 0.01, deviationVolts: 0.01, driftVoltsPerHour: 0, outsideSeconds: 0 };
    const curve = { seconds: [0], low: [0], high: [0] };
    type Event = KeptLog['events'][number];
    const logged = (rail: RailName, mean: number, event: Partial<Event> | null = null, phase: Phase = 'before') =>
      new TestBench().do({
        kind: 'put-log',
        basedOn: 0,
        log: {
          id: uuid(1),
          name: 'evening.csv',
          phase,
          rows: 600,
          skipped: 0,
          lastsSeconds: 600,
          channels: [{ rail, meanVolts: mean, lowestVolts: mean, highestVolts: mean, ...still, curve }],
          events:
            event === null
              ? []
              : [{ rail, kind: 'spike', atSeconds: 10, lastsSeconds: 2, volts: null, fromVolts: null, ...event }],
          eventsInAll: event === null ? 0 : 1,
        },
      });
    it('where the rail lay too high all along, or stayed up for a while', () => {
      expect(ids(logged('+12', 13.1))).toEqual(['rail-high']);
      expect(ids(logged('+12', 12.1, { volts: 13.2 }))).toEqual(['rail-high']);
      expect(ids(logged('+5', 5.1, { kind: 'step', lastsSeconds: 0, volts: 5.6 }))).toEqual(['rail-high']);
      expect(ids(logged('-12', -13.6))).toEqual(['rail-high']);
      expect(ids(logged('+12', 13.1, null, 'after'))).toEqual(['fitted-rail-high']);
    });
    it('but not by a spike, by what a meter may err, or by a rail that is low', () => {
      expect(ids(logged('+12', 12.1, { volts: 14, lastsSeconds: 0.01 }))).toEqual([]);
      expect(ids(logged('+12', 12.65))).toEqual([]);
      expect(ids(logged('+12', 11, { kind: 'dip', volts: 9 }))).toEqual([]);
      expect(ids(logged('-12', -10))).toEqual([]);
      expect(ids(logged('+12', 12.1, { kind: 'off' }))).toEqual([]);
    });
  });

  it('come from a selector that stood wrong for the mains, until it is set right', () => {
    const { label } = testShop.supplies[0]!;
    const stands = (selector?: 'none' | '115' | '230') =>
      new TestBench().do({
        kind: 'put-supply',
        supply: { name: 'Old', label, ...(selector === undefined ? {} : { selector }) },
        basedOn: 0,
      });
    expect(testShop.settings.mainsVolts).toBe(230);
    for (const right of ['none', '230', undefined] as const) expect(ids(stands(right))).toEqual([]);
    const on = stands('115');
    expect(ids(on)).toEqual(['selector']);
    const { interlocks, step } = on.view();
    expect(dangerCauseText(knowledge, interlocks[0]!.causes[0]!)).toBe(
      "the supply's selector stood at 115 V as it came; the mains here are 230 V",
    );
    expect(step).toEqual({ do: 'make-safe', dangerId: 'selector' });
    expect(measuringBar(interlocks, 'before')).not.toBeNull();
    on.do(safe(900, 'selector', knowledge.dangers.find(({ id }) => id === 'selector')!.ways[0]!.id));
    expect(ids(on)).toEqual([]);
  });
  it('come from a too-high code as well', () => {
    const on = new TestBench().do({
      kind: 'take-reading',
      reading: {
        id: uuid(1),
        phase: 'before',
        subject: '+5sb',
        condition: 'off-load',
        value: { kind: 'code', code: 'too-high' },
        instrumentId: 'meter',
        ...bareReading,
      },
    });
    expect(ids(on)).toEqual(['rail-high']);
  });

  it('stop the search, Measure and the rocker until they are made safe, and the old supply for good', () => {
    const on = new TestBench()
      .do({ kind: 'edit-sheet', changes: { button: 'cuts-random' }, basedOn: 1 })
      .read(1, '+12', 'idle', 13.2);
    const before = on.view();
    expect(before.step).toEqual({ do: 'make-safe', dangerId: 'rail-high' });
    expect(measuringBar(before.interlocks, 'before')).not.toBeNull();
    expect(measuringBar(before.interlocks, 'after')).not.toBeNull();
    expect(barring(before.interlocks, provingPower(on.job))).not.toBeNull();
    expect(before.openPoints.filter((point) => point.code === 'danger').map(openPointText)).toEqual([
      'A rail is too high, and nobody has noted that it was made safe.',
    ]);
    on.do(safe(50, 'rail-high', 'supply-out'));
    const after = on.view();
    expect(after.step).toEqual({ do: 'check', checkId: 'd-swap' });
    expect(after.openPoints.some((point) => point.code === 'danger')).toBe(false);
    expect(standingDangersText(before.interlocks)).toContain('Nothing is powered until that is made safe');
    expect(standingDangersText(after.interlocks)).toBe('');
    expect(neverText(after.interlocks[0]!.bars)).toContain('never power the machine by the supply that came');
    expect(measuringBar(after.interlocks, 'before')).not.toBeNull();
    expect(measuringBar(after.interlocks, 'after')).toBeNull();
    on.read(2, '+12', 'work', 13.3);
    expect(on.view().step).toEqual({ do: 'make-safe', dangerId: 'rail-high' });
    on.do({ kind: 'strike-reading', id: uuid(1) }, { kind: 'strike-reading', id: uuid(2) });
    expect(on.view().interlocks).toEqual([]);
  });

  it('of the fitted supply bar that one', () => {
    const on = new TestBench().read(1, '+5', 'idle', 5.9, 'after');
    expect(ids(on)).toEqual(['fitted-rail-high']);
    on.do(safe(51, 'fitted-rail-high', 'supply-out'));
    const { interlocks } = on.view();
    expect(measuringBar(interlocks, 'after')?.danger.id).toBe('fitted-rail-high');
    expect(measuringBar(interlocks, 'before')).toBeNull();
  });

  it('come from a probe walk that found harm', () => {
    const probe = (volts: number): Act => ({
      kind: 'put-probe',
      probe: {
        id: uuid(7),
        label: 'spare drive cable',
        plug: 'sata',
        pins: [{ pin: 1, value: { kind: 'figure', figure: volts } }],
        note: '',
      },
      basedOn: 0,
    });
    const on = new TestBench().do(probe(12));
    expect(ids(on)).toEqual(['harmful-cable']);
    on.do(safe(52, 'harmful-cable', 'taken-away'));
    expect(ids(on)).toEqual([]);
    on.do(probe(12.1));
    expect(ids(on)).toEqual(['harmful-cable']);
    on.do(probe(3.3));
    expect(ids(on)).toEqual([]);
  });

  it('are asked about at closing, and no more once the job is closed', () => {
    const on = new TestBench().do({ kind: 'note-outcome', id: uuid(61), checkId: 'look-plugs', outcomeId: 'bare' });
    const asked = () => on.view().openPoints.filter((point) => point.code === 'danger').length;
    expect(asked()).toBe(1);
    on.do({ kind: 'set-finding', finding: { kind: 'hand-on', faultId: null, confirmed: false, note: '' }, basedOn: 0 });
    expect(on.try({ kind: 'close', basedOn: 1 })).toMatchObject({ code: 'open-points' });
    on.do({
      kind: 'sign-off',
      id: uuid(62),
      point: 'danger:bare-wire',
      reason: 'Handed back unpowered, told in writing.',
    });
    on.do({ kind: 'close', basedOn: 1 });
    expect(asked()).toBe(0);
  });

  it('are taken back with the answer that showed them', () => {
    const on = new TestBench().do({ kind: 'note-outcome', id: uuid(60), checkId: 'look-plugs', outcomeId: 'bare' });
    expect(ids(on)).toEqual(['bare-wire']);
    on.do({ kind: 'take-back-outcome', id: uuid(60) });
    expect(ids(on)).toEqual([]);
  });
});
