import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  inletFace,
  inletFamily,
  plugKinds,
  standardPlugKinds,
  type PinSignal,
  type PlugKind,
} from '../standards/index.ts';
import { crossingOf, faceOfPlug, worstCrossing, type PlugWiring, type SocketPinout, type WireEnd } from './index.ts';

const faceSignals = (plug: PlugKind) =>
  inletFace[faceOfPlug[plug]].rows
    .flat()
    .sort((a, b) => a.pin - b.pin)
    .map((item) => item.signal);
/** A socket that gives the device's own order, and a cable that runs straight through it. */
const straight = (plug: PlugKind): { pinout: SocketPinout; wiring: PlugWiring } => ({
  pinout: { pins: faceSignals(plug) },
  wiring: { plug, ends: faceSignals(plug).map((_, index) => index + 1) },
});
const voltage = (signal: PinSignal | 'nothing' | null) => ['12', '5', '3.3', 'SB', '-12'].includes(signal ?? '');
const ground = (signal: PinSignal | 'nothing' | null) => signal === 'G' || signal === 'S';

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
      expect(crossingOf(shuffled, { plug, ends: pinout.pins.map((_, pin) => order.indexOf(pin) + 1) }).word).toBe(
        'safe',
      );
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
      { pin: 1, belongs: '12', carries: 'G', word: 'short' },
      { pin: 2, belongs: 'G', carries: '12', word: 'short' },
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
    const signal = fc.option(fc.constantFrom<PinSignal>('12', '5', '3.3', 'G', 'SB', 'PG', 'ST', '-12', 'S', 'NC'), {
      freq: 12,
    });
    const end = fc.oneof(
      { weight: 12, arbitrary: fc.integer({ min: 1, max: 26 }) },
      { weight: 1, arbitrary: fc.constant<WireEnd>('none') },
      { weight: 1, arbitrary: fc.constant<WireEnd>(null) },
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...plugKinds),
        fc.array(signal, { minLength: 4, maxLength: 26 }),
        fc.array(end, { minLength: 4, maxLength: 24 }),
        (plug, pins, ends) => {
          const crossing = crossingOf({ pins }, { plug, ends });
          const belongs = faceSignals(plug);
          const meets = crossing.pins.some(
            (pin) =>
              (voltage(pin.carries) && pin.carries !== belongs[pin.pin - 1]) ||
              (pin.carries !== 'S' && ground(pin.carries) && voltage(belongs[pin.pin - 1]!)) ||
              // A card's sense pin is ground; the main plug's feels +3.3.
              (pin.carries === 'S' &&
                (inletFamily(faceOfPlug[plug]) === 'main'
                  ? belongs[pin.pin - 1] !== '3.3'
                  : voltage(belongs[pin.pin - 1]!))),
          );
          if (meets) expect(crossing.word).toBe('harmful');
          if (crossing.word === 'safe') expect(crossing.pins.every((pin) => pin.carries !== null)).toBe(true);
          expect(crossing.probe.length > 0).toBe(crossing.pins.some((pin) => pin.word === 'unknown'));
        },
      ),
      { numRuns: 3000 },
    );
  });
  it('a sense wire of the main plug belongs to +3.3; on a ground contact it does harm', () => {
    const main = straight('main-24');
    const sensing = (at: number) => ({
      pins: main.pinout.pins.map((signal, index) => (index === at ? ('S' as const) : signal)),
    });
    const first = (signal: PinSignal) => faceSignals('main-24').indexOf(signal);
    expect(crossingOf(sensing(first('3.3')), main.wiring).word).toBe('safe');
    expect(crossingOf(sensing(first('G')), main.wiring).word).toBe('harmful');
    expect(crossingOf(sensing(first('5')), main.wiring).word).toBe('harmful');
  });
  it('a cable is as bad as its worst plug', () => {
    const { pinout, wiring } = straight('sata');
    const good = crossingOf(pinout, wiring);
    expect(worstCrossing([good, good])).toBe('safe');
    expect(worstCrossing([good, crossingOf(null, wiring)])).toBe('unknown');
    expect(worstCrossing([])).toBe('unknown');
  });
});
