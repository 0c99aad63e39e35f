import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyFrom } from '../even.test-help.ts';
import { normal, seeded, type Random } from '../simulate/index.ts';
import { inletFace, railBand, standardInletKinds, type InletKind, type RailName } from '../standards/index.ts';
import { hearFigure, nextTouch, stillTouching, takesHeld, touched, type HandsFree } from './hands-free.ts';
import { judgeProbe, walkOf, type ProbedPin } from './probe.ts';
import { atOnce, look } from './still-figures.ts';

const beat = 20;
const settlingMilliseconds = 30;

/** Something the probe does for so many answers of the meter: touches these volts, or hangs in the air. */
interface Phase {
  readonly volts: number | null;
  readonly looks: number;
}

/** What is taken while the probe goes through the phases, as server and screen do it together. */
function taken(rail: RailName, phases: readonly Phase[], noise: number, random: Random): number[] {
  let state = atOnce;
  let hands: HandsFree = stillTouching;
  let input = phases[0]?.volts ?? 0;
  let milliseconds = 0;
  const found: number[] = [];
  for (const { volts, looks } of phases)
    for (let count = 0; count < looks; count += 1) {
      milliseconds += beat;
      const target = volts === null ? 0 : volts + noise * normal(random);
      input = target + (input - target) * Math.exp(-beat / settlingMilliseconds);
      hands = hearFigure(hands, rail, input);
      const seen = look(state, rail, { milliseconds, volts: input });
      state = seen.state;
      if (seen.rests !== null && takesHeld(hands)) {
        hands = stillTouching;
        found.push(seen.rests.meanVolts);
      }
    }
  return found;
}

describe('taking what comes to rest', () => {
  it('takes nothing before the probe was lifted, however long it rests', () => {
    expect(taken('+12', [{ volts: 12.03, looks: 200 }], 0.004, seeded(1))).toEqual([]);
  });

  it('takes each touch once, and not while it shakes', () => {
    const air = { volts: null, looks: 25 };
    const found = taken(
      '+12',
      [{ volts: 11.9, looks: 30 }, air, { volts: 12.03, looks: 80 }, air, { volts: 11.62, looks: 80 }, air],
      0.004,
      seeded(2),
    );
    expect(found).toHaveLength(2);
    expect(found[0]).toBeCloseTo(12.03, 1);
    expect(found[1]).toBeCloseTo(11.62, 1);
  });

  it('takes a figure on the next pin that is the same as on the last one', () => {
    const air = { volts: null, looks: 20 };
    const same = { volts: 12.03, looks: 60 };
    expect(taken('+12', [air, same, air, same, air, same], 0.004, seeded(3))).toHaveLength(3);
  });

  it('never takes two figures without the probe in the air between them, nor one that nothing touched', () => {
    const phase = fc.record({
      volts: fc.option(anyFrom(3, 13), { freq: 2 }),
      looks: fc.integer({ min: 1, max: 60 }),
    });
    fc.assert(
      fc.property(fc.array(phase, { maxLength: 14 }), fc.integer(), (phases, seed) => {
        const found = taken('+12', phases, 0.004, seeded(seed));
        // A lift shorter than the looks that tell it is none.
        const lifts = phases.filter(({ volts, looks }) => volts === null && looks >= 3).length;
        const joined = phases.reduce((runs, { volts }, index) => {
          const before = phases[index - 1];
          return volts === null && before?.volts !== null ? runs + 1 : runs;
        }, 0);
        expect(found.length).toBeLessThanOrEqual(Math.max(lifts, joined));
        for (const volts of found)
          expect(phases.some((item) => item.volts !== null && Math.abs(item.volts - volts) < 0.1)).toBe(true);
      }),
      { numRuns: 300 },
    );
  });
});

/** What a cable carries pin by pin: null where nothing is connected. */
type Wires = ReadonlyMap<number, number | null>;

const nominal = {
  '12': 12.02,
  '5': 5.03,
  '3.3': 3.31,
  '-12': -11.9,
  SB: 5.02,
  PG: 4.9,
  ST: 0.05,
  S: 0,
  G: 0,
  coded: 0,
} as const;

const rightWires = (plug: InletKind): Wires =>
  new Map(
    walkOf(plug, '2.x').map(({ pin, signal }) => [
      pin,
      signal in nominal ? nominal[signal as keyof typeof nominal] : null,
    ]),
  );

/** Walks a cable with both hands at the probes; a pin at which nothing comes to rest is left out. */
function walk(plug: InletKind, wires: Wires): readonly ProbedPin[] {
  const pins: ProbedPin[] = [];
  for (let count = 0; count < 60; count += 1) {
    const touch = nextTouch(judgeProbe(plug, pins, '2.x'));
    if (touch === null) break;
    const carries = wires.get(touch.pin) ?? null;
    const shown = touch.way === 'red-on-pin' ? carries : carries === null ? null : wires.get(touch.knownPin)! - carries;
    const rests = shown !== null && Math.abs(shown) >= 0.2 * Math.abs(railBand(touch.rail, '2.x').nominal);
    if (!rests) break;
    pins.push(touched(touch, shown));
  }
  return pins;
}

describe('a walk with both hands at the probes', () => {
  it.each(standardInletKinds)('proves a right %s, each pin touched once', (plug) => {
    const pins = walk(plug, rightWires(plug));
    expect(pins).toHaveLength(walkOf(plug, '2.x').length);
    expect(judgeProbe(plug, pins, '2.x').word).toBe('safe');
  });

  it('changes the probes over once, after every pin that must show something', () => {
    const order: string[] = [];
    const pins: ProbedPin[] = [];
    const wires = rightWires('main-24');
    for (let touch = nextTouch(judgeProbe('main-24', pins, '2.x')); touch !== null;) {
      order.push(touch.way);
      const carries = wires.get(touch.pin)!;
      pins.push(touched(touch, touch.way === 'red-on-pin' ? carries : wires.get(touch.knownPin)! - carries));
      touch = nextTouch(judgeProbe('main-24', pins, '2.x'));
    }
    expect(order.indexOf('black-on-pin')).toBe(order.filter((way) => way === 'red-on-pin').length);
  });

  it('has nothing to prove a ground by while no rail is right', () => {
    expect(
      nextTouch(
        judgeProbe(
          'card-8',
          [1, 2, 3].map((pin) => ({ pin, value: { kind: 'figure', figure: 0 } })),
          '2.x',
        ),
      ),
    ).toBe(null);
  });

  it('never calls a cable safe whose wires differ from the standard, whatever they carry', () => {
    const volts = fc.constantFrom(null, 0, 3.31, 5.03, 12.02, -11.9);
    fc.assert(
      fc.property(fc.constantFrom(...standardInletKinds), fc.infiniteStream(volts), (plug, stream) => {
        const right = rightWires(plug);
        const wires = new Map([...right.keys()].map((pin) => [pin, stream.next().value as number | null]));
        const { word } = judgeProbe(plug, walk(plug, wires), '2.x');
        const signals = new Map(inletFace[plug].rows.flat().map((item) => [item.pin, item.signal]));
        const asWanted = [...right].every(([pin, wanted]) => {
          const carries = wires.get(pin)!;
          const signal = signals.get(pin);
          if (signal === undefined) return carries === null || Math.abs(carries) < 0.2; // a contact that codes watts
          if (signal === 'PG' || signal === 'SB') return carries === 5.03 || (signal === 'PG' && carries === 3.31);
          return carries !== null && Math.abs(carries - (wanted ?? 0)) < 0.2;
        });
        if (!asWanted) expect(word).not.toBe('safe');
      }),
      { numRuns: 1500 },
    );
  });
});
