import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  inletFace,
  inletFamily,
  plugKinds,
  standardPlugKinds,
  socketSignals,
  type PinSignal,
  type PlugKind,
  type SocketSignal,
} from '../standards/index.ts';
import { codedAgainstPrint } from '../wording/index.ts';
import {
  codedWatts,
  countedWatts,
  crossingOf,
  faceOfPlug,
  wiredCode,
  type CrossedPin,
  worstCrossing,
  type PlugWiring,
  type SocketPinout,
  type WireEnd,
} from './index.ts';

const faceSignals = (plug: PlugKind) =>
  inletFace[faceOfPlug[plug]].rows
    .flat()
    .sort((a, b) => a.pin - b.pin)
    .map((item) => item.signal);
const smallOf = (plug: PlugKind) => inletFace[faceOfPlug[plug]].small ?? [];
/** A socket that gives the device's own order, and a cable that runs straight through it. */
const straight = (plug: PlugKind): { pinout: SocketPinout; wiring: PlugWiring } => ({
  pinout: { pins: faceSignals(plug) },
  wiring: {
    plug,
    ends: [...faceSignals(plug).map((_, index) => index + 1), ...smallOf(plug).map(() => 'none' as const)],
  },
});
const voltage = (signal: SocketSignal | CrossedPin['belongs'] | 'nothing' | null) =>
  ['12', '5', '3.3', 'SB', '-12'].includes(signal ?? '');
const ground = (signal: SocketSignal | CrossedPin['belongs'] | 'nothing' | null) => signal === 'G' || signal === 'S';

function* permutations<T>(items: readonly T[]): Generator<T[]> {
  if (items.length === 0) {
    yield [];
    return;
  }
  for (let index = 0; index < items.length; index += 1)
    for (const rest of permutations(items.filter((_, other) => other !== index))) yield [items[index]!, ...rest];
}

describe('the crossing check', () => {
  it.each(standardPlugKinds)(
    '%s: its own order, run straight, is safe; so is any order with a cable made for it',
    (plug) => {
      const { pinout, wiring } = straight(plug);
      expect(crossingOf(pinout, wiring)).toMatchObject({ word: 'safe', probe: [] });
      const order = pinout.pins.map((_, index) => (index * 7 + 3) % pinout.pins.length);
      if (new Set(order).size !== order.length) return;
      const shuffled: SocketPinout = { pins: order.map((from) => pinout.pins[from]!) };
      expect(
        crossingOf(shuffled, {
          plug,
          ends: [...pinout.pins.map((_, pin) => order.indexOf(pin) + 1), ...smallOf(plug).map(() => 'none' as const)],
        }).word,
      ).toBe('safe');
    },
  );
  it("of a maker's own plug, of which no pin is known, is never safe", () => {
    for (const pinout of [null, { pins: [] }, { pins: ['12', 'G'] } as SocketPinout])
      expect(crossingOf(pinout, { plug: 'main-own', ends: [] }).word).toBe('unknown');
  });
  it('a cable of the same maker on another row of sockets puts 12 V on ground pin 2', () => {
    const made: SocketPinout = { pins: ['12', 'G', 'G', '5'] };
    const other: SocketPinout = { pins: ['G', '12', 'G', '5'] };
    const wiring: PlugWiring = { plug: 'peripheral-4', ends: [1, 2, 3, 4] };
    expect(crossingOf(made, wiring).word).toBe('safe');
    const crossing = crossingOf(other, wiring);
    expect(crossing.word).toBe('harmful');
    expect(crossing.pins.filter((pin) => pin.word !== 'right')).toEqual([
      { pin: 1, name: '1', belongs: '12', carries: 'G', word: 'short' },
      { pin: 2, name: '2', belongs: 'G', carries: '12', word: 'short' },
    ]);
  });
  it('tells another voltage from a short', () => {
    expect(
      crossingOf({ pins: ['5', 'G', 'G', '12'] }, { plug: 'peripheral-4', ends: [1, 2, 3, 4] }).pins.map(
        (pin) => pin.word,
      ),
    ).toEqual(['wrong-voltage', 'right', 'right', 'wrong-voltage']);
  });
  it('does not trust what nobody knows, and says what to probe', () => {
    const { pinout, wiring } = straight('cpu-8');
    expect(crossingOf(null, wiring)).toMatchObject({ word: 'unknown', probe: [1, 2, 3, 4, 5, 6, 7, 8] });
    expect(
      crossingOf({ pins: pinout.pins.map((signal, index) => (index === 4 ? null : signal)) }, wiring),
    ).toMatchObject({ word: 'unknown', probe: [5] });
    expect(
      crossingOf(pinout, { ...wiring, ends: wiring.ends.map((end, index) => (index < 2 ? null : end)) }),
    ).toMatchObject({ word: 'unknown', probe: [1, 2] });
    expect(crossingOf(pinout, { ...wiring, ends: wiring.ends.slice(0, 6) })).toMatchObject({
      word: 'unknown',
      probe: [7, 8],
    });
    expect(crossingOf(pinout, { ...wiring, ends: [...wiring.ends.slice(0, 7), 9] })).toMatchObject({
      word: 'unknown',
      probe: [8],
    });
  });
  it('one harmful pin is harm, whatever else is unknown', () => {
    expect(crossingOf({ pins: ['12', null, null, null] }, { plug: 'cpu-4', ends: [1, 2, 3, 4] }).word).toBe('harmful');
  });
  it('what does not arrive makes it incomplete; the free pin of the main plug may be empty', () => {
    const sata = straight('sata');
    expect(
      crossingOf(sata.pinout, {
        ...sata.wiring,
        ends: sata.wiring.ends.map((end, index) => (index < 3 ? 'none' : end)),
      }),
    ).toMatchObject({ word: 'incomplete', probe: [] });
    const main = straight('main-24');
    const free = faceSignals('main-24').indexOf('NC');
    expect(
      crossingOf(main.pinout, {
        ...main.wiring,
        ends: main.wiring.ends.map((end, index) => (index === free ? 'none' : end)),
      }).word,
    ).toBe('safe');
    expect(
      crossingOf({ pins: main.pinout.pins.map((signal, index) => (index === free ? '-12' : signal)) }, main.wiring)
        .word,
    ).toBe('harmful');
  });
  it.each<PlugKind>(['peripheral-4', 'small-drive-4', 'cpu-4', 'card-6'])(
    '%s: every way to cross its wires is judged as counting by hand does',
    (plug) => {
      const { pinout } = straight(plug);
      const order = pinout.pins.map((_, index) => index + 1);
      let safe = 0;
      for (const ends of permutations(order)) {
        const arrives = ends.map((end) => pinout.pins[end - 1]!);
        const right = arrives.every(
          (signal, index) => signal === pinout.pins[index] || (ground(signal) && ground(pinout.pins[index]!)),
        );
        expect(crossingOf(pinout, { plug, ends }).word === 'safe', ends.join()).toBe(right);
        if (right) safe += 1;
      }
      // As many as there are ways to swap like with like.
      const factorial = (n: number): number => (n < 2 ? 1 : n * factorial(n - 1));
      const groups = new Map<string, number>();
      for (const signal of pinout.pins) {
        const key = signal === 'S' ? 'G' : signal!;
        groups.set(key, (groups.get(key) ?? 0) + 1);
      }
      expect(safe).toBe([...groups.values()].reduce((product, count) => product * factorial(count), 1));
    },
  );
  it('is never safe nor merely incomplete where a voltage meets another voltage or ground', () => {
    const signal = fc.option(fc.constantFrom<SocketSignal>(...socketSignals), { freq: 12 });
    const supplyPin = fc.integer({ min: 1, max: 26 });
    const end = fc.oneof(
      { weight: 12, arbitrary: supplyPin },
      { weight: 2, arbitrary: fc.tuple(supplyPin, supplyPin) },
      { weight: 1, arbitrary: fc.constant<WireEnd>('none') },
      { weight: 1, arbitrary: fc.constant<WireEnd>(null) },
    );
    /** Does this wire do harm in a contact of this signal? */
    const harms = (wire: SocketSignal | 'nothing' | null, belongs: CrossedPin['belongs'], plug: PlugKind): boolean => {
      if (wire === 'S12' || wire === 'S5' || wire === 'S3.3') return belongs !== wire.slice(1);
      if (wire === 'SG') return !ground(belongs);
      if (wire === 'S' && inletFamily(faceOfPlug[plug]) === 'main') return !voltage(belongs) && !ground(belongs);
      return (voltage(wire) && wire !== belongs) || (ground(wire) && voltage(belongs));
    };
    fc.assert(
      fc.property(
        fc.constantFrom(...plugKinds),
        fc.array(signal, { minLength: 4, maxLength: 26 }),
        fc.array(end, { minLength: 4, maxLength: 24 }),
        (plug, pins, ends) => {
          const crossing = crossingOf({ pins }, { plug, ends });
          const wires = crossing.pins.flatMap(({ carries, second, belongs }) =>
            [carries, ...(second === undefined ? [] : [second])].map((wire) => ({ wire, belongs })),
          );
          if (wires.some(({ wire, belongs }) => harms(wire, belongs, plug))) expect(crossing.word).toBe('harmful');
          if (crossing.word === 'safe') expect(wires.every(({ wire }) => wire !== null)).toBe(true);
          expect(crossing.probe.length > 0).toBe(crossing.pins.some((pin) => pin.word === 'unknown'));
        },
      ),
      { numRuns: 3000 },
    );
  });
  it('two wires in one contact: every pair is judged as counting by hand does', () => {
    const plug = 'peripheral-4';
    const belongs = faceSignals(plug);
    for (const first of socketSignals)
      for (const second of socketSignals)
        for (const at of belongs.keys()) {
          const pins = [...belongs, first, second];
          const ends = belongs.map((_, pin): WireEnd => (pin === at ? [5, 6] : pin + 1));
          const wanted = belongs[at]!;
          const brings = [first, second].map((wire) => wire === wanted || (ground(wire) && ground(wanted)));
          const idle = [first, second].map(
            (wire) => wire === 'NC' || wire === `S${wanted}` || (wire === 'SG' && ground(wanted)),
          );
          const safe = brings.some(Boolean) && brings.every((does, wire) => does || idle[wire]);
          const incomplete = idle.every(Boolean);
          const { word } = crossingOf({ pins }, { plug, ends });
          expect(word, `${first} and ${second} at ${wanted}`).toBe(
            safe ? 'safe' : incomplete ? 'incomplete' : 'harmful',
          );
        }
  });
  it('a sense wire of the main plug belongs where it senses, beside what feeds that contact', () => {
    const main = straight('main-24');
    const first = (signal: PinSignal) => faceSignals('main-24').indexOf(signal);
    /** The sense wire as the only one of a contact, or as the second one. */
    const sensing = (sense: SocketSignal, at: number, alone: boolean) => {
      const more = main.pinout.pins.length + 1;
      const ends = main.wiring.ends.map((end, pin) => (pin !== at ? end : alone ? more : ([pin + 1, more] as const)));
      return crossingOf({ pins: [...main.pinout.pins, sense] }, { ...main.wiring, ends });
    };
    for (const [sense, signal] of [
      ['S3.3', '3.3'],
      ['S5', '5'],
      ['S12', '12'],
      ['SG', 'G'],
    ] as const) {
      expect(sensing(sense, first(signal), false).word).toBe('safe');
      // By itself it brings nothing to that contact.
      expect(sensing(sense, first(signal), true)).toMatchObject({ word: 'incomplete', probe: [] });
      const others = (['3.3', '5', '12', 'G', 'PG'] as const).filter((other) => other !== signal);
      for (const other of others) expect(sensing(sense, first(other), false).word).toBe('harmful');
    }
    // Of which voltage it is nobody knows: to be found out, and never beside a signal.
    expect(sensing('S', first('5'), false)).toMatchObject({ word: 'unknown', probe: [first('5') + 1] });
    expect(sensing('S', first('PG'), false).word).toBe('harmful');
  });
  it('a cable is as bad as its worst plug', () => {
    const { pinout, wiring } = straight('sata');
    const good = crossingOf(pinout, wiring);
    expect(worstCrossing([good, good])).toBe('safe');
    expect(worstCrossing([good, crossingOf(null, wiring)])).toBe('unknown');
    expect(worstCrossing([])).toBe('unknown');
  });
});

describe('the small contacts of a 16-pin plug', () => {
  const pinout: SocketPinout = {
    pins: [...Array<'12'>(6).fill('12'), ...Array<'G'>(6).fill('G'), '5', 'S', 'S12', 'NC'],
  };
  const wiring = (...small: readonly WireEnd[]): PlugWiring => ({
    plug: 'card-16',
    ends: [...Array.from({ length: 12 }, (_, pin) => pin + 1), ...small],
  });
  const crossed = (...small: readonly WireEnd[]) => crossingOf(pinout, wiring(...small));

  it('carry ground or nothing; a voltage on one destroys the card, and what nobody looked at is not known', () => {
    expect(crossed('none', 'none', 7, 'none')).toMatchObject({ word: 'safe', probe: [] });
    for (let at = 0; at < 4; at += 1) {
      const withEnd = (end: WireEnd) => crossed(...[0, 1, 2, 3].map((one) => (one === at ? end : ('none' as const))));
      expect(withEnd(1)).toMatchObject({ word: 'harmful' });
      expect(withEnd(13).pins[12 + at]).toMatchObject({ name: `S${at + 1}`, word: 'wrong-voltage' });
      expect(withEnd(15).word).toBe('harmful');
      expect(withEnd([7, 1]).word).toBe('harmful');
      expect(withEnd(16).word).toBe('safe');
      expect(withEnd(null)).toMatchObject({ word: 'unknown', probe: [13 + at] });
      expect(withEnd(30).word).toBe('unknown');
    }
    expect(crossed().probe).toEqual([13, 14, 15, 16]);
  });
  it('code the watts by ground or open, each way they can be wired', () => {
    const code = (third: WireEnd, fourth: WireEnd) => wiredCode(crossed('none', 'none', third, fourth));
    expect([code(7, 8), code(7, 'none'), code('none', 8), code('none', 'none')]).toEqual([
      600,
      'by-print',
      'by-print',
      'none',
    ]);
    // Not known, done harm by, or left to the supply.
    expect([code(null, 8), code(1, 8), code(14, 8)]).toEqual([null, null, null]);
    expect(wiredCode(crossingOf({ pins: ['12'] }, { plug: 'card-8', ends: [1] }))).toBeNull();
  });
  it('never let a cable count for more than they code, nor for more than is printed on it', () => {
    const least = { none: 150, 'by-print': 300, 600: 600 } as const;
    for (const code of ['none', 'by-print', 600, null] as const)
      for (const printed of [...codedWatts, null]) {
        const counted = countedWatts(printed, code);
        if (code === null) expect(counted).toBe(printed ?? undefined);
        else {
          if (printed !== null) expect(counted).toBeLessThanOrEqual(Math.max(printed, least[code]));
          expect(counted).toBeLessThanOrEqual(code === 'by-print' ? 450 : least[code]);
        }
        const told = codedAgainstPrint(printed, code);
        expect(told === '').toBe(printed === null || counted === printed);
        if (told !== '') expect(told).toContain(`${counted} W`);
      }
  });
});
