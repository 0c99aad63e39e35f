import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { walkOf, type ProbedPin } from '../measure/index.ts';
import type { InletKind, PlugKind } from '../standards/index.ts';
import { unprovedPlugs } from './proved.ts';

/** A walk in which every pin shows what it must, but for twelve volts of the caller's choice. */
const walk = (plug: InletKind, twelve = 12.02): { plug: InletKind; pins: ProbedPin[] } => ({
  plug,
  pins: walkOf(plug, '2.x').map(({ pin, expects, signal }) => {
    if (expects.kind === 'coded') return { pin, value: { kind: 'code', code: 'absent' } };
    const figure = expects.kind === 'rail' ? (signal === '12' ? twelve : (expects.lower + expects.upper) / 2) : 0;
    return {
      pin,
      value: { kind: 'figure', figure },
      ...(expects.kind === 'ground' ? { ground: { kind: 'continuity', heard: true } as const } : {}),
    };
  }),
});

describe('a cable is proved', () => {
  it('by a walk of each of its plugs, one for one', () => {
    const two = ['card-6+2', 'card-6+2'] as const;
    expect(unprovedPlugs(two, [], '2.x')).toEqual(two);
    expect(unprovedPlugs(two, [walk('card-8')], '2.x')).toEqual(['card-6+2']);
    expect(unprovedPlugs(two, [walk('card-8'), walk('card-8')], '2.x')).toEqual([]);
    expect(unprovedPlugs(['sata', 'peripheral-4'], [walk('sata'), walk('sata')], '2.x')).toEqual(['peripheral-4']);
  });

  it('by a walk in which every pin was right, by the guide of the supply', () => {
    const low = walk('cpu-8', 11.3);
    expect(unprovedPlugs(['cpu-8'], [low], '2.x')).toEqual(['cpu-8']);
    expect(unprovedPlugs(['cpu-8'], [low], '3.x')).toEqual([]);
    const half = { ...low, pins: low.pins.slice(1) };
    expect(unprovedPlugs(['cpu-8'], [half], '3.x')).toEqual(['cpu-8']);
  });

  it('never by fewer walks than it has plugs', () => {
    const kinds = fc.array(fc.constantFrom<PlugKind>('sata', 'peripheral-4', 'card-8', 'cpu-8'), { maxLength: 6 });
    fc.assert(
      fc.property(kinds, kinds, (plugs, walked) => {
        const left = unprovedPlugs(
          plugs,
          walked.map((plug) => walk(plug as InletKind)),
          '2.x',
        );
        const count = (list: readonly PlugKind[], kind: PlugKind) => list.filter((item) => item === kind).length;
        for (const kind of new Set(plugs))
          expect(count(left, kind)).toBe(Math.max(0, count(plugs, kind) - count(walked, kind)));
      }),
    );
  });
});
