import { describe, expect, it } from 'vitest';
import { inletFamily, inletKinds, plugKinds, plugServes, type InletKind, type PlugKind } from '../standards/index.ts';
import { adapterCarries, adapterRefusal, adapterServes, type Adapter, type InletToServe } from './index.ts';

const adapter = (takes: InletKind, gives: PlugKind, changes: Partial<Adapter> = {}): Adapter => ({
  id: 'a',
  takes,
  gives,
  legs: 1,
  moulded: false,
  addsMillimetres: 100,
  watts: null,
  count: 1,
  ...changes,
});
const inlet = (kind: InletKind, amps12: number, changes: Partial<InletToServe> = {}): InletToServe => ({
  id: 'i',
  kind,
  optional: false,
  place: 'slots',
  reachMillimetres: 300,
  amps12,
  amps5: 0,
  amps33: 0,
  ...changes,
});

describe('adapters', () => {
  it.each<[InletKind, PlugKind]>([
    ['card-6', 'card-8'],
    ['card-6', 'card-6+2'],
    ['cpu-4', 'cpu-8'],
    ['cpu-4', 'cpu-4+4'],
    ['main-20', 'main-24'],
    ['main-20', 'main-20+4'],
    ['small-drive-4', 'peripheral-4'],
    ['small-drive-4', 'sata'],
  ])('never make a larger inlet of a smaller plug: %s to %s', (takes, gives) => {
    expect(adapterRefusal(adapter(takes, gives))).toBe('larger-than-source');
  });
  it.each<[InletKind, PlugKind]>([
    ['card-8', 'card-6'],
    ['cpu-8', 'cpu-4'],
    ['main-24', 'main-20'],
    ['cpu-8', 'cpu-4+4'],
    ['peripheral-4', 'sata'],
    ['sata', 'peripheral-4'],
    ['peripheral-4', 'small-drive-4'],
    ['card-16', 'card-16'],
  ])('may make the same or a smaller one: %s to %s', (takes, gives) => {
    expect(adapterRefusal(adapter(takes, gives))).toBeNull();
  });
  it('never cross purposes, but for a 16-pin plug made of separate 8-pin cables', () => {
    for (const takes of inletKinds)
      for (const gives of plugKinds)
        for (const legs of [1, 2, 3]) {
          if (adapterRefusal(adapter(takes, gives, { legs })) !== null) continue;
          const to = inletKinds.find((kind) => plugServes(gives, kind))!;
          const sixteen = takes === 'card-8' && gives === 'card-16' && legs >= 2;
          expect(inletFamily(takes) === inletFamily(to) || sixteen, `${takes} ${gives} ${legs}`).toBe(true);
        }
    expect(adapterRefusal(adapter('peripheral-4', 'card-6'))).toBe('crosses-purposes');
    expect(adapterRefusal(adapter('sata', 'cpu-4'))).toBe('crosses-purposes');
  });
  it("may make a maker's own main plug of a 24-pin one, by the name of the inlet that it fits", () => {
    const own = adapter('main-24', 'main-own', { ownPlug: 'Harbour desk, 10 pins' });
    expect(adapterRefusal(own)).toBeNull();
    expect(adapterRefusal({ ...own, ownPlug: undefined })).toBe('unnamed');
    expect(adapterRefusal(adapter('main-24', 'main-20', { ownPlug: 'Harbour desk, 10 pins' }))).toBe('unnamed');
    expect(adapterRefusal({ ...own, takes: 'main-20' })).toBe('larger-than-source');
    expect(adapterRefusal({ ...own, takes: 'cpu-8' })).toBe('crosses-purposes');
    const named = (ownPlug?: string) => adapterServes(own, inlet('main-own', 4, { ownPlug }));
    expect([named('Harbour desk, 10 pins'), named(' harbour  desk, 10 pins')]).toEqual([true, true]);
    expect([named('Harbour desk, 8 pins'), named(), named('')]).toEqual([false, false, false]);
    expect(adapterServes(own, inlet('main-24', 4))).toBe(false);
  });
  it('carry no more than their own watts, nor more than their legs may give', () => {
    const sixteen = adapter('card-8', 'card-16', { legs: 3, watts: 450 });
    expect(adapterCarries(sixteen, inlet('card-16', 37.5))).toBe(true);
    expect(adapterCarries(sixteen, inlet('card-16', 37.6))).toBe(false);
    expect(adapterCarries({ ...sixteen, watts: null, legs: 2 }, inlet('card-16', 25.1))).toBe(false);
    const longer = adapter('cpu-8', 'cpu-4+4', { watts: 200 });
    expect(adapterServes(longer, inlet('cpu-8', 16))).toBe(true);
    expect(adapterServes(longer, inlet('cpu-8', 17))).toBe(false);
    // A flat plug's 4.5 A, start of a drive included.
    const flat = adapter('sata', 'sata');
    expect(adapterServes(flat, inlet('sata', 2, { startAmps12: 2.5 }))).toBe(true);
    expect(adapterServes(flat, inlet('sata', 2, { startAmps12: 2.6 }))).toBe(false);
  });
});
