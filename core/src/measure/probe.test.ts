import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { standardInletKinds, railBand, type InletKind } from '../standards/index.ts';
import { judgeProbe, probedCode, walkOf, type GroundProof, type ProbedPin, type WalkPin } from './index.ts';

const nominal: Record<WalkPin['signal'], number> = {
  '12': 12,
  '5': 5,
  '3.3': 3.3,
  '-12': -12,
  SB: 5,
  G: 0,
  S: 0,
  PG: 4.8,
  ST: 0.1,
  NC: 0,
  stable: 0,
  present: 0,
  coded: 0,
};
const right = (plug: InletKind): ProbedPin[] =>
  walkOf(plug, '2.x').map(({ pin, signal }) => ({
    pin,
    value: { kind: 'figure', figure: nominal[signal] },
    ...(signal === 'G' || signal === 'coded' ? { ground: { kind: 'rail', volts: 12.02 } } : {}),
  }));
const withPin = (plug: InletKind, pin: number, figure: number) =>
  right(plug).map((item) => (item.pin === pin ? { pin, value: { kind: 'figure' as const, figure } } : item));

describe('a cable probed at its device end', () => {
  it.each(standardInletKinds)('%s is safe when every pin shows what it must', (plug) => {
    expect(judgeProbe(plug, right(plug), '2.x').word).toBe('safe');
    // Of a maker's own plug no pin is known: nothing walked proves nothing.
    expect(judgeProbe('main-own', [], '2.x').word).toBe('incomplete');
  });
  it('is incomplete until the last pin was touched', () => {
    fc.assert(
      fc.property(fc.constantFrom(...standardInletKinds), fc.nat(30), (plug, skip) => {
        const all = right(plug);
        const left = all.filter((_, index) => index !== skip % all.length);
        expect(judgeProbe(plug, left, '2.x').word).toBe('incomplete');
        expect(judgeProbe(plug, left, '2.x').pins.filter((pin) => pin.finding === 'missing')).toHaveLength(1);
      }),
    );
  });
  it('does not pass an open ground, which shows no volts either, nor one that nobody proved', () => {
    const grounds = (ground: ProbedPin['ground']) =>
      judgeProbe(
        'card-8',
        right('card-8').map(({ ground: was, ...pin }) => (was === undefined ? pin : { ...pin, ground })),
        '2.x',
      );
    const found = (ground: ProbedPin['ground']) => [
      grounds(ground).word,
      ...new Set(grounds(ground).pins.flatMap((pin) => (pin.signal === 'G' ? [pin.finding] : []))),
    ];
    expect(found(undefined)).toEqual(['incomplete', 'unproved']);
    expect(found({ kind: 'rail', volts: 0.01 })).toEqual(['incomplete', 'open']);
    expect(found({ kind: 'rail', volts: 5.04 })).toEqual(['safe', 'right']);
    expect(found({ kind: 'continuity', heard: false })).toEqual(['incomplete', 'open']);
    expect(found({ kind: 'continuity', heard: true })).toEqual(['safe', 'right']);
  });
  it('a proof does not excuse volts on a ground pin', () => {
    const pins = right('card-8').map((item) =>
      item.pin === 5 ? { ...item, value: { kind: 'figure' as const, figure: 12 } } : item,
    );
    expect(judgeProbe('card-8', pins, '2.x').word).toBe('wrong');
  });
  it('is wrong, with the pin named, where +12 lies on a ground pin', () => {
    const verdict = judgeProbe('card-8', withPin('card-8', 5, 12.02), '2.x');
    expect(verdict.word).toBe('wrong');
    expect(verdict.pins.filter((pin) => pin.finding === 'wrong')).toMatchObject([
      { pin: 5, signal: 'G', carries: '+12' },
    ]);
  });
  it('is wrong as soon as one pin is, before the rest was touched', () => {
    expect(judgeProbe('sata', [{ pin: 13, value: { kind: 'figure', figure: 5.02 } }], '2.x')).toMatchObject({
      word: 'wrong',
    });
  });
  it('a processor cable in a card inlet is wrong on every live and ground pin', () => {
    const processor = right('cpu-8');
    const verdict = judgeProbe('card-8', processor, '2.x');
    expect(verdict.word).toBe('wrong');
    expect(verdict.pins.filter((pin) => pin.finding === 'wrong').map((pin) => pin.pin)).toEqual([1, 2, 3, 5, 6, 7, 8]);
  });
  it('any rail swapped with any other is wrong, whichever plug', () => {
    for (const plug of standardInletKinds)
      for (const { pin, expects } of walkOf(plug, '2.x'))
        if (expects.kind === 'rail')
          for (const other of ['+12', '+5', '+3.3', '-12'] as const) {
            if (Math.abs(railBand(other, '2.x').nominal - railBand(expects.rail, '2.x').nominal) < 0.5) continue;
            expect(
              judgeProbe(plug, withPin(plug, pin, railBand(other, '2.x').nominal), '2.x').word,
              `${plug} ${pin} ${other}`,
            ).toBe('wrong');
          }
  });
  it('a sagging or absent rail is weak, not a wrong wire, and not safe', () => {
    expect(judgeProbe('cpu-8', withPin('cpu-8', 6, 10.2), '2.x')).toMatchObject({ word: 'incomplete' });
    expect(
      judgeProbe(
        'cpu-8',
        right('cpu-8').map((item) =>
          item.pin === 6 ? { pin: 6, value: { kind: 'code' as const, code: 'absent' as const } } : item,
        ),
        '2.x',
      ).pins.find((pin) => pin.pin === 6)!.finding,
    ).toBe('weak');
  });
  it('a 6-pin card plug may have its pin 2 empty, and no other', () => {
    const without = (pin: number) =>
      judgeProbe(
        'card-6',
        right('card-6').map((item) =>
          item.pin === pin ? { pin, value: { kind: 'code' as const, code: 'absent' as const } } : item,
        ),
        '2.x',
      ).word;
    expect(without(2)).toBe('safe');
    expect(without(1)).toBe('incomplete');
    expect(judgeProbe('card-6', withPin('card-6', 2, 0), '2.x').word).toBe('wrong');
  });
  it('reads the watts that a 16-pin plug is coded for, and passes it with none', () => {
    const coded = (s3: GroundProof | 'absent', s4: GroundProof | undefined) =>
      judgeProbe(
        'card-16',
        right('card-16').map((item) => {
          if (item.pin === 15 && s3 === 'absent') return { pin: 15, value: { kind: 'code', code: 'absent' } as const };
          if (item.pin !== 15 && item.pin !== 16) return item;
          const ground = item.pin === 15 ? (s3 as GroundProof) : s4;
          return { pin: item.pin, value: item.value, ...(ground === undefined ? {} : { ground }) };
        }),
        '2.x',
      );
    const [grounded, open] = [
      { kind: 'continuity', heard: true },
      { kind: 'rail', volts: 0.01 },
    ] as const satisfies readonly GroundProof[];
    const both = coded(grounded, { kind: 'rail', volts: 12.01 });
    expect([both.word, probedCode(both)]).toEqual(['safe', 600]);
    expect(probedCode(coded(grounded, open))).toBe('by-print');
    expect(probedCode(coded(open, grounded))).toBe('by-print');
    const none = coded('absent', open);
    expect([none.word, probedCode(none)]).toEqual(['safe', 'none']);
    expect([coded(grounded, undefined).word, probedCode(coded(grounded, undefined))]).toEqual(['incomplete', null]);
    expect(judgeProbe('card-16', withPin('card-16', 16, 12), '2.x').word).toBe('wrong');
    expect(probedCode(judgeProbe('card-8', right('card-8'), '2.x'))).toBeNull();
  });
  it('allows the lower +12 at the card', () => {
    expect(judgeProbe('card-16', withPin('card-16', 2, 11.1), '2.x').word).toBe('safe');
    expect(judgeProbe('cpu-8', withPin('cpu-8', 6, 11.1), '2.x').word).not.toBe('safe');
  });
});
