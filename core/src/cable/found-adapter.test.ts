import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyFrom } from '../even.test-help.ts';
import {
  inletFamily,
  inletKinds,
  limits,
  plugKinds,
  plugServes,
  type InletKind,
  type PlugKind,
} from '../standards/index.ts';
import { allowedAdapters, noBags, faceOfPlug, foundHarm, type FoundAdapter, type InletToServe } from './index.ts';

const found = (gives: PlugKind, changes: Partial<FoundAdapter> = {}): FoundAdapter => ({
  gives,
  legs: 1,
  moulded: false,
  ...changes,
});
const inlet = (kind: InletKind, amps12 = 1): InletToServe => ({
  id: 'i',
  kind,
  optional: false,
  place: 'slots',
  reachMillimetres: 300,
  amps12,
  amps5: 0,
  amps33: 0,
});

describe('an adapter that was found', () => {
  it.each<[PlugKind, FoundAdapter, InletKind, number, ReturnType<typeof foundHarm>]>([
    // The card fed from drive plugs, which people find in old machines.
    ['peripheral-4', found('card-6', { legs: 2 }), 'card-6', 6, 'crosses-purposes'],
    ['sata', found('card-6'), 'card-6', 6, 'crosses-purposes'],
    ['peripheral-4', found('cpu-4'), 'cpu-4', 6, 'crosses-purposes'],
    ['card-6', found('card-8'), 'card-8', 12, 'larger-than-source'],
    ['cpu-4', found('cpu-8'), 'cpu-8', 12, 'larger-than-source'],
    ['main-20', found('main-24'), 'main-24', 4, 'larger-than-source'],
    ['peripheral-4', found('sata', { moulded: true }), 'sata', 1, 'moulded'],
    ['card-6+2', found('card-16'), 'card-16', 25, 'too-few-legs'],
    // These may stay.
    ['peripheral-4', found('sata'), 'sata', 1, null],
    ['main-24', found('main-20'), 'main-20', 4, null],
    ['card-6+2', found('card-16', { legs: 3 }), 'card-16', 37, null],
    ['main-24', found('main-own'), 'main-own', 4, null],
    ['cpu-4+4', found('cpu-8'), 'cpu-8', 12, null],
    // As far as the plug behind it carries.
    ['card-6+2', found('card-16', { legs: 2 }), 'card-16', 26, 'overloaded'],
    ['sata', found('sata'), 'sata', limits.sataPlugAmps + 0.1, 'overloaded'],
    ['peripheral-4', found('sata'), 'card-6', 6, 'no-fit'],
  ])('%s through %o in %s with %d A', (plug, through, kind, amps, harm) => {
    expect(foundHarm(plug, through, inlet(kind, amps))).toBe(harm);
  });

  it('may stay exactly where one from the bag could be planned with', () => {
    const any = fc.record({
      plug: fc.constantFrom(...plugKinds),
      gives: fc.constantFrom(...plugKinds.filter((kind) => kind !== 'main-own')),
      legs: fc.integer({ min: 1, max: 4 }),
      moulded: fc.boolean(),
      kind: fc.constantFrom(...inletKinds),
      amps: anyFrom(0, 60),
    });
    fc.assert(
      fc.property(any, ({ plug, gives, legs, moulded, kind, amps }) => {
        const harm = foundHarm(plug, { gives, legs, moulded }, inlet(kind, amps));
        if (!plugServes(gives, kind)) {
          expect(harm).toBe('no-fit');
          return;
        }
        const inBag = {
          id: 'a',
          label: 'A',
          takes: faceOfPlug[plug],
          gives,
          legs,
          moulded,
          addsMillimetres: 0,
          watts: null,
          count: 1,
          place: '',
          version: 1,
        };
        const allowed = allowedAdapters({ ...noBags, adapters: [inBag] }).length === 1;
        if (!allowed) expect(['no-fit', 'overloaded', null]).not.toContain(harm);
        else expect(['overloaded', null]).toContain(harm);
        // Never across purposes, but for a 16-pin plug of separate 8-pin cables.
        if (harm === null && inletFamily(faceOfPlug[plug]) !== inletFamily(kind))
          expect([kind, legs >= 2]).toEqual(['card-16', true]);
      }),
      { numRuns: 2000 },
    );
  });
});
