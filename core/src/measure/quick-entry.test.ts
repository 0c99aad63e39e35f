import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { doubtOf, missingRails, parseFigure, parseQuickEntry } from './quick-entry.ts';
import { isPossible, subjects } from './reading.ts';

const flat = (text: string) =>
  parseQuickEntry(text).readings.map((reading) => [
    reading.subject,
    reading.value.kind === 'figure' ? reading.value.figure : reading.value.code,
    reading.condition,
  ]);

describe('quick entry', () => {
  it.each([
    ['12 11.92', [['+12', 11.92, null]]],
    ['12v 11,92 work', [['+12', 11.92, 'work']]],
    ['5 HH', [['+5', 'too-high', null]]],
    ['pg 370', [['power-good', 370, null]]],
    ['-12 -11.6', [['-12', -11.6, null]]],
    ['+12=11.9', [['+12', 11.9, null]]],
    ['12 11.9V', [['+12', 11.9, null]]],
    ['12 11.9 v', [['+12', 11.9, null]]],
    ['3,3 3,31 idle', [['+3.3', 3.31, 'idle']]],
    ['sb 5.02', [['+5sb', 5.02, null]]],
    [
      '12 11.92 5 5.03 idle 12 11.4 work',
      [
        ['+12', 11.92, 'idle'],
        ['+5', 5.03, 'idle'],
        ['+12', 11.4, 'work'],
      ],
    ],
    ['', []],
  ])('%s', (text, expected) => {
    expect(flat(text)).toEqual(expected);
    expect(parseQuickEntry(text).problems).toEqual([]);
  });
  it.each([
    [
      '12: 11.92, 5: 5,03 / 3.3 3.31',
      [
        ['+12', 11.92, null],
        ['+5', 5.03, null],
        ['+3.3', 3.31, null],
      ],
    ],
    ['the 12 volt rail reads 11.92', [['+12', 11.92, null]]],
    ['5v sb 4.9 off', [['+5sb', 4.9, 'off-load']]],
    [
      '5 5 sb 5.02',
      [
        ['+5', 5, null],
        ['+5sb', 5.02, null],
      ],
    ],
    ['minus 12 −11.8', [['-12', -11.8, null]]],
    ['power good 0.35 s', [['power-good', 350, null]]],
    ['hold up 18 ms', [['hold-up', 18, null]]],
    ['12 11920 mv', [['+12', 11.92, null]]],
    ['12 80mv', [['+12', 0.08, null]]],
    ['ripple on 12 80mv', [['ripple +12', 80, null]]],
    ['5 ripple 0.04 v', [['ripple +5', 40, null]]],
    ['12 under load 11.4', [['+12', 11.4, 'work']]],
    [
      '12 11.92, idle; 12 11.4, work',
      [
        ['+12', 11.92, 'idle'],
        ['+12', 11.4, 'work'],
      ],
    ],
    [
      'idle 12 12.1 5 5.05 work 310 w 12 11.8',
      [
        ['+12', 12.1, 'idle'],
        ['+5', 5.05, 'idle'],
        ['+12', 11.8, 'work'],
      ],
    ],
    [
      '11.92 on 12, 5.03 on the 5v',
      [
        ['+12', 11.92, null],
        ['+5', 5.03, null],
      ],
    ],
    ['80mv ripple on 12', [['ripple +12', 80, null]]],
    [
      '12 11.4 on load 5 4.9',
      [
        ['+12', 11.4, 'work'],
        ['+5', 4.9, null],
      ],
    ],
    ['12v rail sags to 11.1 under full load', [['+12', 11.1, 'work']]],
    ['12 12.1 no load', [['+12', 12.1, 'off-load']]],
    [
      '12v 12.02V idle, 11.85V load',
      [
        ['+12', 12.02, 'idle'],
        ['+12', 11.85, 'work'],
      ],
    ],
    ['power on 450 ms', [['power-on', 450, null]]],
    [
      'yellow 11.92 red 5.03 orange 3.31 violet 5.02 blue -11.9 grey 350ms',
      [
        ['+12', 11.92, null],
        ['+5', 5.03, null],
        ['+3.3', 3.31, null],
        ['+5sb', 5.02, null],
        ['-12', -11.9, null],
        ['power-good', 350, null],
      ],
    ],
  ])('as people write: %s', (text, expected) => {
    expect(flat(text)).toEqual(expected);
    expect(parseQuickEntry(text).problems).toEqual([]);
  });
  it('keeps no figure in a unit that such a thing is not read in, nor of a pin that is none of these', () => {
    for (const [line, word] of [
      ['12 350ms', '350ms'],
      ['pg 5v', '5v'],
      ['hold 18mv', '18mv'],
    ] as const) {
      const { readings, problems } = parseQuickEntry(line);
      expect([line, readings, problems[0]]).toMatchObject([line, [], { code: 'not-a-figure', word }]);
    }
    expect(parseQuickEntry('ps on 0.1')).toEqual({
      readings: [],
      problems: [
        { code: 'unknown-word', word: 'ps-on' },
        { code: 'missing-rail', word: '0.1' },
      ],
    });
  });
  it('means the same whether conditions and loads are said before or behind', () => {
    const condition = fc.constantFrom('off', 'idle', 'work');
    const reading = fc.tuple(fc.constantFrom('12', '5', '3.3', '-12', 'sb'), fc.integer({ min: 1, max: 13 }));
    const block = fc.record({
      condition,
      load: fc.option(fc.integer({ min: 1, max: 900 })),
      readings: fc.array(reading, { minLength: 1, maxLength: 4 }),
    });
    fc.assert(
      fc.property(fc.array(block, { minLength: 1, maxLength: 4 }), (blocks) => {
        const words = ({ load, readings }: (typeof blocks)[number]) => ({
          load: load === null ? '' : `${load}w`,
          figures: readings.map(([rail, volts]) => `${rail} ${volts}`).join(' '),
        });
        const before = blocks.map((one) => `${one.condition} ${words(one).load} ${words(one).figures}`).join(' ');
        const behind = blocks.map((one) => `${words(one).figures} ${one.condition} ${words(one).load}`).join(' ');
        expect(parseQuickEntry(before)).toEqual(parseQuickEntry(behind));
      }),
    );
  });
  it('takes the load in the same line: watts for what has none yet, amps for the rail read last', () => {
    const loads = (text: string) =>
      parseQuickEntry(text).readings.map((reading) => [reading.condition, reading.loadWatts, reading.loadAmps]);
    expect(loads('12 11.92 5 5.03 idle 60w 12 11.4 18,5a work 310W')).toEqual([
      ['idle', 60, null],
      ['idle', 60, null],
      ['work', 310, 18.5],
    ]);
    expect(loads('12 11.4 18a 5 5.02 6a')).toEqual([
      [null, null, 18],
      [null, null, 6],
    ]);
    // A load at work is none of what was read at idle.
    expect(loads('12 12.1 idle 12 11.4 work 310w')).toEqual([
      ['idle', null, null],
      ['work', 310, null],
    ]);
    expect(parseQuickEntry('310w').problems).toEqual([{ code: 'unknown-word', word: '310w' }]);
    expect(parseQuickEntry('12 11.9 9000w').problems).toEqual([{ code: 'load-too-large', word: '9000w' }]);
    expect(parseQuickEntry('12 11.9 900a').problems).toEqual([{ code: 'load-too-large', word: '900a' }]);
    expect(parseQuickEntry('12 11.9 -5w').problems).toEqual([{ code: 'unknown-word', word: '-5w' }]);
  });
  it('asks about a reading where the supply has no such output', () => {
    const rails = (...names: ('+12' | '+5' | '+3.3' | '-12' | '+5sb')[]) =>
      missingRails({ rails: names.map((rail) => ({ label: rail, rail, amps: 1 })) });
    expect(missingRails(null)).toEqual([]);
    expect(rails()).toEqual([]);
    expect(rails('+12', '+5', '+3.3')).toEqual([]);
    expect(rails('+12', '+5', '+3.3', '+5sb')).toEqual(['-12']);
    expect(rails('+12')).toEqual(['+5', '+3.3', '-12', '+5sb']);
    expect(parseQuickEntry('-12 -11.8', ['-12']).readings[0]!.doubt).toEqual({ code: 'no-such-rail' });
    expect(parseQuickEntry('-12 absent', ['-12']).readings[0]!.doubt).toBeNull();
    expect(parseQuickEntry('12 11.9', ['-12']).readings[0]!.doubt).toBeNull();
    expect(parseQuickEntry('5 12.02', ['+5']).readings[0]!.doubt!.code).toBe('other-rail');
  });
  it('says what it did not understand and keeps the rest', () => {
    expect(parseQuickEntry('12 eleven 5 5.01').problems).toEqual([
      { code: 'not-a-figure', subject: '+12', word: 'eleven' },
    ]);
    expect(flat('12 eleven 5 5.01')).toEqual([['+5', 5.01, null]]);
    // What is said of a figure that was none is no trouble of its own.
    expect(parseQuickEntry('12 11.9.9 work 310w').problems).toHaveLength(1);
    expect(flat('12 11.9.9 work 5 5.01 idle')).toEqual([['+5', 5.01, 'idle']]);
    // The others of its state keep what is said of them.
    for (const line of ['12 11.4 5 350ms work 310w 12a', 'work 310w 12 11.4 5 350ms 12a'])
      expect(parseQuickEntry(line)).toMatchObject({
        readings: [{ subject: '+12', condition: 'work', loadWatts: 310, loadAmps: null }],
        problems: [{ code: 'not-a-figure', word: '350ms' }],
      });
    expect(parseQuickEntry('12').problems).toEqual([{ code: 'missing-value', subject: '+12' }]);
    expect(parseQuickEntry('7.2').problems).toEqual([{ code: 'missing-rail', word: '7.2' }]);
    expect(parseQuickEntry('-5 -5.1 12 11.9')).toMatchObject({
      readings: [{ subject: '+12' }],
      problems: [{ code: 'historic-rail' }],
    });
    expect(parseQuickEntry('-5v absent').problems).toEqual([{ code: 'historic-rail' }]);
    expect(parseQuickEntry('mauve').problems).toEqual([{ code: 'unknown-word', word: 'mauve' }]);
    // A figure that the rail before it cannot have is of none.
    expect(parseQuickEntry('12 12.1 idle, 5.03 work')).toMatchObject({
      readings: [{ subject: '+12', condition: 'idle' }],
      problems: [{ code: 'missing-rail', word: '5.03' }],
    });
    // Names that every object answers to are words like others.
    expect(parseQuickEntry('constructor').problems).toEqual([{ code: 'unknown-word', word: 'constructor' }]);
    expect(parseQuickEntry('12 constructor')).toEqual({
      readings: [],
      problems: [{ code: 'not-a-figure', subject: '+12', word: 'constructor' }],
    });
  });
  it('asks about what is likely a slip', () => {
    expect(doubtOf('+12', -11.9)).toMatchObject({ code: 'sign' });
    expect(doubtOf('-12', 11.9)).toMatchObject({ code: 'sign' });
    expect(doubtOf('+12', 5.03)).toMatchObject({ code: 'other-rail', rail: '+5' });
    expect(doubtOf('+12', 11920)).toMatchObject({ code: 'millivolts', volts: 11.92 });
    expect(doubtOf('+12', 1204)).toEqual({ code: 'point', figure: 1204, volts: 12.04 });
    expect(doubtOf('-12', -1190)).toEqual({ code: 'point', figure: -1190, volts: -11.9 });
    expect(doubtOf('+3.3', 33)).toEqual({ code: 'point', figure: 33, volts: 3.3 });
    expect(doubtOf('+12', 1204.5)).toMatchObject({ code: 'far' });
    expect(doubtOf('+12', 120)).toMatchObject({ code: 'mains' });
    expect(doubtOf('+12', 230)).toMatchObject({ code: 'mains' });
    expect(doubtOf('+5', 40)).toMatchObject({ code: 'far' });
    expect(doubtOf('+12', 9.5)).toBeNull();
    expect(doubtOf('+12', 0)).toBeNull();
  });
  it('reads decimal comma and point alike and refuses letters', () => {
    expect(parseFigure('11,9')).toBe(11.9);
    expect(parseFigure('1.2.3')).toBeNull();
    expect(parseFigure('1e3')).toBeNull();
    expect(parseFigure('')).toBeNull();
  });
  it('never throws and never makes a figure that is not finite', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        for (const reading of parseQuickEntry(text).readings)
          if (reading.value.kind === 'figure') expect(Number.isFinite(reading.value.figure)).toBe(true);
      }),
    );
  });
});

describe('times and ripple in a line', () => {
  it('are read by their own words, in milliseconds and millivolts', () => {
    const read = (text: string) =>
      parseQuickEntry(text).readings.map(({ subject, value, condition, doubt }) => [
        subject,
        value.kind === 'figure' ? value.figure : value.code,
        condition,
        doubt?.code ?? null,
      ]);
    expect(read('r12 45 r5 18mv r3.3 20 mV r-12 30 rsb 9 work')).toEqual([
      ['ripple +12', 45, 'work', null],
      ['ripple +5', 18, 'work', null],
      ['ripple +3.3', 20, 'work', null],
      ['ripple -12', 30, 'work', null],
      ['ripple +5sb', 9, 'work', null],
    ]);
    expect(read('on 320 hold 17,5ms pg 250')).toEqual([
      ['power-on', 320, null, null],
      ['hold-up', 17.5, null, null],
      ['power-good', 250, null, null],
    ]);
    expect(read('hold -3 r12 9000')).toEqual([
      ['hold-up', -3, null, 'far'],
      ['ripple +12', 9000, null, 'far'],
    ]);
  });
});

describe('what no supply gives', () => {
  it('is more than 60 V either way, and a time or a ripple below nothing or beyond five thousand', () => {
    for (const [subject, figure, possible] of [
      ['+12', 60, true],
      ['+12', 60.1, false],
      ['-12', -60, true],
      ['-12', -60.1, false],
      ['+12', 0, true],
      ['power-on', 0, true],
      ['power-on', -1, false],
      ['hold-up', 5000, true],
      ['hold-up', 5001, false],
      ['ripple +12', -0.1, false],
      ['ripple +5sb', 5001, false],
    ] as const)
      expect([subject, figure, isPossible(subject, figure)]).toEqual([subject, figure, possible]);
  });
  it('is always asked about', () => {
    for (const subject of subjects)
      for (const figure of [-5000, -61, -0.5, 61, 84, 270, 5001, 18_000])
        if (!isPossible(subject, figure)) expect(doubtOf(subject, figure)).not.toBeNull();
  });
});
