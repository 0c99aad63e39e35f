import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyFrom } from '../even.test-help.ts';
import { normal, seeded } from '../simulate/index.ts';
import {
  curvePieces,
  guessMapping,
  logFigure,
  logSeconds,
  mostLogRows,
  readLog,
  type LogMapping,
  type LogSummary,
} from './index.ts';

const mapping: LogMapping = {
  columns: [
    { holds: 'time', format: 'seconds' },
    { holds: 'rail', rail: '+12', unit: 'V' },
    { holds: 'rail', rail: '+5', unit: 'V' },
  ],
  decimal: '.',
  headerRows: 0,
};
const summed = (rows: readonly (readonly string[])[], by: LogMapping = mapping): LogSummary => {
  const reader = readLog(by, '2.x');
  expect(reader.push(rows)).toBeNull();
  const result = reader.finish();
  if (!result.ok) throw new Error(JSON.stringify(result.problem));
  return result.summary;
};
const problemOf = (rows: readonly (readonly string[])[], by: LogMapping = mapping) => {
  const reader = readLog(by, '2.x');
  const early = reader.push(rows);
  if (early !== null) return early;
  const result = reader.finish();
  return result.ok ? null : result.problem;
};
const rowsOf = (count: number, twelve: (index: number) => number, five: (index: number) => number = () => 5) =>
  Array.from({ length: count }, (_, index) => [String(index * 0.1), twelve(index).toFixed(4), five(index).toFixed(4)]);

describe('the figures of a log', () => {
  it('are mean, deviation, extremes and noise as by the textbook', () => {
    const random = seeded(4);
    const values = Array.from({ length: 5000 }, () => 12 + 0.02 * normal(random));
    const channel = summed(rowsOf(5000, (index) => values[index]!)).channels[0]!;
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    expect(channel.meanVolts).toBeCloseTo(mean, 4);
    expect(channel.deviationVolts).toBeCloseTo(
      Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1)),
      4,
    );
    expect(channel.noiseVolts).toBeCloseTo(0.02, 3);
    expect([channel.lowestVolts, channel.highestVolts]).toEqual([
      Number(Math.min(...values).toFixed(4)),
      Number(Math.max(...values).toFixed(4)),
    ]);
  });
  it('noise is free of a slow drift, and the drift is the slope', () => {
    const random = seeded(8);
    const channel = summed(rowsOf(20_000, (index) => 12.1 - index * 1e-5 + 0.005 * normal(random))).channels[0]!;
    expect(channel.noiseVolts).toBeCloseTo(0.005, 3);
    expect(channel.driftVoltsPerHour).toBeCloseTo(-1e-5 * 10 * 3600, 2);
  });
  it("noise is free of the logger's rounding, fine or coarse", () => {
    for (const [places, noise] of [
      [4, 0.004],
      [2, 0.006],
      [2, 0.02],
      [1, 0.06],
    ] as const) {
      const random = seeded(9);
      const rows = Array.from({ length: 40_000 }, (_, index) => [
        String(index),
        (12 - index * 1e-6 + noise * normal(random)).toFixed(places),
        '5',
      ]);
      expect(summed(rows).channels[0]!.noiseVolts / noise, `${places} places`).toBeCloseTo(1, 1);
      expect(Math.abs(summed(rows).channels[0]!.noiseVolts / noise - 1), `${places} places`).toBeLessThan(0.03);
    }
    expect(
      summed(Array.from({ length: 5000 }, (_, index) => [String(index), (12 - index * 1e-5).toFixed(2), '5']))
        .channels[0]!.noiseVolts,
    ).toBe(0);
  });
  it('count the time outside the band', () => {
    const { channels, events } = summed(rowsOf(1000, (index) => (index >= 300 && index < 350 ? 11.2 : 12)));
    expect(channels[0]!.outsideSeconds).toBeCloseTo(5, 6);
    expect(events.filter((event) => event.kind === 'dip')).toMatchObject([
      { rail: '+12', atSeconds: 30, volts: 11.2, lastsSeconds: expect.closeTo(5, 6) },
    ]);
  });
  it('a switch-off at the end is an end, and no dip', () => {
    const falls = [12, 11, 7, 3, 0.4, 0.1];
    const { channels, events } = summed(
      rowsOf(
        500,
        (index) => (index < 400 ? 12 + (index % 2) * 0.01 : (falls[index - 400] ?? 0.02)),
        (index) => (index < 403 ? 5 : 0.01),
      ),
    );
    expect(events).toMatchObject([{ kind: 'off', rail: '+12', atSeconds: expect.closeTo(40.1, 6) as number }]);
    expect(channels[0]).toMatchObject({ count: 401, outsideSeconds: 0, lowestVolts: 12 });
    expect(channels[1]!.lowestVolts).toBe(5);
    expect(Math.min(...channels[0]!.curve.low)).toBe(0.02);
  });
  it('a rail that was low before it was switched off stays low', () => {
    const { channels, events } = summed(rowsOf(600, (index) => (index < 200 ? 12 : index < 400 ? 11.2 : 0.02)));
    expect(events.filter(({ kind }) => kind !== 'step')).toMatchObject([
      { kind: 'dip', atSeconds: 20, volts: 11.2, lastsSeconds: expect.closeTo(19.9, 6) as number },
      { kind: 'off', atSeconds: 40 },
    ]);
    expect(channels[0]!.outsideSeconds).toBeCloseTo(19.9, 6);
    expect(channels[0]!.lowestVolts).toBe(11.2);
  });
  it('are of each session alone, where it was off between', () => {
    const twelve = (index: number) => (index < 200 ? 12.1 : index < 300 ? 0.05 : index < 302 ? 6 : 12);
    const { channels, events } = summed(rowsOf(600, twelve));
    expect(events).toMatchObject([{ kind: 'off', atSeconds: 20, lastsSeconds: expect.closeTo(10, 6) as number }]);
    expect(channels[0]).toMatchObject({ outsideSeconds: 0, highestVolts: 12.1 });
    expect(channels[0]!.meanVolts).toBeGreaterThan(12);
  });
  it('a drop-out of a moment is a dip to nothing', () => {
    const { channels, events } = summed(rowsOf(600, (index) => (index >= 300 && index < 305 ? 0.02 : 12)));
    expect(events).toMatchObject([{ kind: 'dip', atSeconds: 30, volts: 0.02, lastsSeconds: expect.closeTo(0.5, 6) }]);
    expect(channels[0]!.lowestVolts).toBe(0.02);
    expect(channels[0]!.outsideSeconds).toBeGreaterThan(0.3);
  });
  it('of a supply that never ran are none', () => {
    const { channels, events } = summed(rowsOf(100, () => 0.01));
    expect(channels[0]).toMatchObject({ count: 0, lowestVolts: 0, meanVolts: 0 });
    expect(events).toMatchObject([{ kind: 'off', atSeconds: 0 }]);
  });
  it('find a step in the last seconds before the end', () => {
    const random = seeded(16);
    const { events } = summed(rowsOf(1000, (index) => 12 - (index >= 980 ? 0.2 : 0) + 0.005 * normal(random)));
    expect(events.filter(({ kind }) => kind === 'step')).toMatchObject([
      { rail: '+12', atSeconds: expect.closeTo(98, 1) as number, volts: expect.closeTo(11.8, 1) as number },
    ]);
  });
  it('see no steps in noise that wanders by itself', () => {
    const random = seeded(17);
    let wander = 0;
    const twelve = Array.from({ length: 20_000 }, () => {
      wander = 0.995 * wander + 0.004 * normal(random);
      return 12 + wander + 0.002 * normal(random);
    });
    const { events } = summed(rowsOf(20_000, (index) => twelve[index]!));
    expect(events.filter(({ kind }) => kind === 'step').length).toBeLessThanOrEqual(1);
  });
  it('keep every extreme in the reduced curve, in few pieces', () => {
    const { channels } = summed(rowsOf(100_000, (index) => (index === 77_777 ? 9.5 : 12)));
    const { curve } = channels[0]!;
    expect(curve.low.length).toBeLessThanOrEqual(curvePieces);
    expect(curve.low.length).toBeGreaterThanOrEqual(curvePieces / 2);
    expect(Math.min(...curve.low)).toBe(9.5);
  });
  it('are the same however the log is cut into pieces', () => {
    const random = seeded(15);
    const rows = rowsOf(
      3000,
      (index) => 12 + 0.05 * normal(random) - (index > 1500 ? 0.4 : 0),
      () => 5 + 0.01 * normal(random),
    );
    const whole = summed(rows);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 900 }), { minLength: 1, maxLength: 12 }), (cuts) => {
        const reader = readLog(mapping, '2.x');
        let at = 0;
        for (let index = 0; at < rows.length; index += 1) {
          const size = cuts[index % cuts.length]!;
          reader.push(rows.slice(at, at + size));
          at += size;
        }
        expect(reader.finish()).toEqual({ ok: true, summary: whole });
      }),
      { numRuns: 15 },
    );
  });
});

describe('what happened in a log', () => {
  it('finds planted dips and spikes in noise, and nothing else', () => {
    const random = seeded(23);
    const dips = new Set([1200, 4800, 4801, 4802]);
    const { events } = summed(
      rowsOf(6000, (index) => (dips.has(index) ? 10.9 : index === 3000 ? 12.9 : 12 + 0.03 * normal(random))),
    );
    expect(
      events
        .filter((event) => event.kind === 'dip')
        .map((event) => Math.round(event.atSeconds))
        .sort((a, b) => a - b),
    ).toEqual([120, 480]);
    expect(events.filter((event) => event.kind === 'spike').map((event) => event.atSeconds)).toEqual([300]);
    expect(events.filter((event) => event.kind === 'step')).toEqual([]);
  });
  it('finds a level that moved and stayed, once, and where', () => {
    const random = seeded(29);
    const { events } = summed(rowsOf(6000, (index) => (index < 3000 ? 12.05 : 11.75) + 0.02 * normal(random)));
    expect(events).toMatchObject([
      { kind: 'step', rail: '+12', fromVolts: expect.closeTo(12.05, 1), volts: expect.closeTo(11.75, 1) },
    ]);
    expect(Math.abs(events[0]!.atSeconds - 300)).toBeLessThan(10);
  });
  it('finds no step in a slow drift nor in noise', () => {
    const random = seeded(31);
    expect(summed(rowsOf(20_000, (index) => 12.2 - index * 2e-5 + 0.03 * normal(random))).events).toEqual([]);
  });
  it('finds a gap in the logging', () => {
    const rows = rowsOf(500, () => 12).map((row, index) =>
      index < 250 ? row : [String(index * 0.1 + 60), ...row.slice(1)],
    );
    expect(summed(rows).events).toMatchObject([{ kind: 'gap', lastsSeconds: expect.closeTo(60.1, 3) }]);
  });
  it('keeps the gravest where a rail swings about its limit all the time', () => {
    const summary = summed(rowsOf(50_000, (index) => (index % 2 === 0 ? 11.3 : 11.5) - (index === 40_000 ? 2 : 0)));
    expect(summary.eventsInAll).toBe(25_000);
    expect(summary.events[0]).toMatchObject({ atSeconds: 4000, volts: expect.closeTo(9.3, 6) });
  });
});

describe('how a log is to be read', () => {
  it('is guessed from names, units, decimal sign and time stamps', () => {
    const { mapping: guessed, problems } = guessMapping([
      ['Logger 4', '', ''],
      ['Zeit', '12V [mV]', '5 V', '3.3V', 'Strom (A)'],
      ['24.11.2026 13:05:01,5', '11985', '5,021', '3,301', '12,4'],
      ['24.11.2026 13:05:02,5', '11984', '5,020', '3,302', '12,5'],
    ]);
    expect(problems).toEqual([]);
    expect(guessed).toEqual({
      decimal: ',',
      headerRows: 2,
      columns: [
        { holds: 'time', format: 'day-first' },
        { holds: 'rail', rail: '+12', unit: 'mV' },
        { holds: 'rail', rail: '+5', unit: 'V' },
        { holds: 'rail', rail: '+3.3', unit: 'V' },
        { holds: 'load', unit: 'A' },
      ],
    });
  });
  it('is guessed by level where the names say nothing', () => {
    expect(
      guessMapping([
        ['0', '12.03', '5.01', '-11.9'],
        ['0.5', '12.04', '5.01', '-11.9'],
        ['1.0', '12.02', '5.0', '-11.8'],
      ]).mapping.columns,
    ).toEqual([
      { holds: 'time', format: 'seconds' },
      { holds: 'rail', rail: '+12', unit: 'V' },
      { holds: 'rail', rail: '+5', unit: 'V' },
      { holds: 'rail', rail: '-12', unit: 'V' },
    ]);
  });
  it('says what is missing', () => {
    expect(guessMapping([[''], ['']]).problems).toEqual([{ code: 'empty' }]);
    expect(guessMapping([['a;b;c'], ['1;2;3']]).problems).toEqual([{ code: 'one-column' }]);
    expect(
      guessMapping([
        ['x', 'y'],
        ['a', 'b'],
      ]).problems,
    ).toEqual([{ code: 'no-figures' }]);
    expect(
      guessMapping([
        ['t', 'foo'],
        ['1', '700'],
        ['2', '701'],
      ]).problems,
    ).toEqual([{ code: 'no-rail' }]);
  });
  it('reads time stamps of several kinds to the same instant', () => {
    const iso = logSeconds('2026-11-24 13:05:01.5', 'iso', '.');
    expect(logSeconds('24.11.2026 13:05:01,5', 'day-first', ',')).toBe(iso);
    expect(logSeconds('11/24/2026 13:05:01.5', 'month-first', '.')).toBe(iso);
    expect(logSeconds('2026-11-24T13:05:01.5Z', 'iso', '.')).toBe(Date.UTC(2026, 10, 24, 13, 5, 1, 500) / 1000);
    expect(logSeconds('1:05:01.5 pm', 'clock', '.')).toBe(13 * 3600 + 301.5);
    expect(logSeconds('1732453501500', 'epoch-milliseconds', '.')).toBe(1732453501.5);
    expect(logSeconds('half past', 'iso', '.')).toBeNaN();
  });
  it('reads every plain figure as the language itself does', () => {
    fc.assert(
      fc.property(anyFrom(-99_999, 99_999), fc.integer({ min: 0, max: 9 }), (value, places) => {
        const text = value.toFixed(places);
        expect(logFigure(text, '.')).toBe(Number(text));
        expect(logFigure(text.replace('.', ','), ',')).toBe(Number(text));
      }),
    );
    for (const text of ['', ' ', '-', '+', '.', ',', '1.2.3', '1e3x', 'abc', '--1'])
      expect(logFigure(text, '.'), text).toBeNaN();
    expect(logFigure(' 12.5 ', '.')).toBe(12.5);
    expect(logFigure('1.25e1', '.')).toBe(12.5);
  });
  it('takes the zone off, so that the clock may change in the middle of a log', () => {
    expect(logSeconds('2026-10-25T02:59:59+02:00', 'iso', '.') + 1).toBe(
      logSeconds('2026-10-25T02:00:00+01:00', 'iso', '.'),
    );
    expect(logSeconds('2026-10-25T01:30:00-0130', 'iso', '.')).toBe(Date.UTC(2026, 9, 25, 3) / 1000);
    expect(logSeconds('25.10.2026 03:00:00+03:00', 'day-first', '.')).toBe(Date.UTC(2026, 9, 25) / 1000);
  });
  it('agrees with the calendar over many years', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 4_000_000_000 }), (seconds) => {
        expect(logSeconds(new Date(seconds * 1000).toISOString(), 'iso', '.')).toBe(seconds);
      }),
    );
  });
});

describe('bad logs', () => {
  const good = rowsOf(400, () => 12);
  it('a time of day that passes midnight goes on', () => {
    const clock: LogMapping = {
      ...mapping,
      columns: [{ holds: 'time', format: 'clock' }, mapping.columns[1]!, mapping.columns[2]!],
    };
    expect(
      summed(
        [
          ['23:59:58', '12', '5'],
          ['23:59:59', '12', '5'],
          ['00:00:00', '12', '5'],
          ['00:00:01', '12', '5'],
        ],
        clock,
      ).lastsSeconds,
    ).toBe(3);
  });
  it('a few rows that cannot be read are counted, many are a problem with their row', () => {
    const few = good.map((row, index) => (index === 200 ? ['20', 'overload', '5'] : index === 210 ? ['21'] : row));
    expect(summed(few).skipped).toEqual({ columns: 1, figures: 1, time: 0, backwards: 0 });
    expect(problemOf(good.map((row, index) => (index > 100 ? ['x', ...row.slice(1)] : row)))).toMatchObject({
      code: 'unreadable',
      row: 102,
    });
    expect(problemOf(good.map((row, index) => (index > 100 ? [row[0]!] : row)))).toMatchObject({
      code: 'changing-columns',
      row: 102,
    });
  });
  it('time running backwards is told, with the row', () => {
    expect(problemOf([...good, ...good])).toMatchObject({ code: 'time-backwards', row: 401 });
    expect(summed([...good.slice(0, 300), good[10]!, ...good.slice(300)]).skipped.backwards).toBe(1);
  });
  it('nothing to read, and no column for time or rail', () => {
    expect(problemOf([])).toEqual({ code: 'no-rows' });
    expect(
      problemOf(good, { ...mapping, columns: [{ holds: 'nothing' }, mapping.columns[1]!, mapping.columns[2]!] }),
    ).toEqual({ code: 'no-time-column' });
    expect(
      problemOf(good, { ...mapping, columns: [mapping.columns[0]!, { holds: 'nothing' }, { holds: 'nothing' }] }),
    ).toEqual({ code: 'no-rail-column' });
  });
  it('a row that does not end stops the reading, with the row; one piece without a row does not', () => {
    const reader = readLog(mapping, '2.x');
    expect(reader.push(good.slice(0, 200))).toBeNull();
    expect(reader.push([])).toBeNull();
    expect(reader.push(good.slice(200))).toBeNull();
    expect(reader.push([])).toBeNull();
    expect(reader.push([])).toEqual({ code: 'endless-row', row: good.length + 1 });
  });
  it('more rows than are taken stop the reading', () => {
    const reader = readLog(mapping, '2.x');
    const piece = rowsOf(100_000, () => 12);
    let problem = null;
    for (let round = 0; round <= 10 && problem === null; round += 1)
      problem = reader.push(piece.map((row) => [String(Number(row[0]) + round * 10_000), row[1]!, row[2]!]));
    expect(problem).toEqual({ code: 'too-many-rows', most: mostLogRows });
  });
});
