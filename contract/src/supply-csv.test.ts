import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cableFamilies, type SupplyModel } from '@fairwatt/core';
import {
  fieldErrors,
  ownPartSchema,
  partFromCells,
  partToCells,
  supplyFromCells,
  supplyModelSchema,
  supplyToCells,
} from './index.ts';

const { supplies } = JSON.parse(readFileSync(new URL('../../demo/supplies.json', import.meta.url), 'utf8')) as {
  supplies: SupplyModel[];
};

describe('supplies as rows', () => {
  it('come back as they were, every one of the demo shop', () => {
    for (const model of supplies)
      expect(supplyModelSchema.parse(supplyFromCells(supplyToCells(model)))).toEqual(supplyModelSchema.parse(model));
  });
  it('let only a modular main or 16-pin cable have two plugs at the supply', () => {
    const told = (changes: { readonly fixed?: boolean; readonly twoEnded?: unknown }, family: string) => {
      const base = supplies.find(({ id }) => id === 'tarnwick-quiet-850')!;
      const cables = base.kit.cables.map((cable) => (cable.family === family ? { ...cable, ...changes } : cable));
      const read = supplyModelSchema.safeParse({ ...base, kit: { ...base.kit, cables } });
      return read.success ? null : read.error.issues.map(({ message }) => message);
    };
    expect(told({ twoEnded: true }, 'card-16')).toBeNull();
    expect(told({ twoEnded: true }, 'cpu')).toEqual([
      'only a modular main or 16-pin cable has two plugs at the supply',
    ]);
    expect(told({ fixed: true }, 'main')).toEqual(['only a modular main or 16-pin cable has two plugs at the supply']);
    expect(told({ twoEnded: false }, 'main')).toEqual(['true, or left out']);
  });
  it("let a modular cable of one piece go into one socket only, one that takes it and is no other cable's own", () => {
    const base = supplies.find(({ id }) => id === 'brackholm-700-dual')!;
    const told = (changes: Readonly<Record<string, unknown>>, id = 'card-2') => {
      const cables = base.kit.cables.map((cable) => (cable.id === id ? { ...cable, ...changes } : cable));
      const read = supplyModelSchema.safeParse({ ...base, kit: { ...base.kit, cables } });
      return read.success ? null : read.error.issues.map(({ path, message }) => [path.at(-1), message]);
    };
    expect(told({})).toBeNull();
    expect(told({ onlySocket: undefined, count: 2 })).toBeNull();
    expect(told({ count: 2 })).toEqual([['onlySocket', 'a cable with a socket of its own is one piece']]);
    expect(told({ onlySocket: 'CARD 7' })).toEqual([['onlySocket', 'no socket has this label']]);
    expect(told({ onlySocket: 'DRIVE 1' })![0]).toEqual(['onlySocket', 'this socket does not take such a cable']);
    expect(told({ onlySocket: 'CARD 1' })).toEqual([['onlySocket', 'another cable has this socket for its own']]);
    const onePlug = 'only a modular cable with one plug at the supply has a socket of its own';
    expect(told({ fixed: true })).toEqual([['onlySocket', onePlug]]);
    expect(told({ onlySocket: 'DRIVE 9', fixed: true }, 'cpu')).toEqual([['onlySocket', onePlug]]);
  });
  it('keep any name of an output or socket, separators included', () => {
    const name = fc
      .string({ minLength: 1, maxLength: 20, unit: fc.constantFrom(...'aB1 :;,|@/%~+-ø"'.split('')) })
      .filter((text) => text.trim() === text);
    fc.assert(
      fc.property(name, name, fc.subarray([...cableFamilies]), (rail, socket, feeds) => {
        const base = supplies[0]!;
        const label = {
          ...base.label,
          rails: [{ label: rail, rail: '+12' as const, amps: 40, feeds }],
          combined: [{ labels: [rail], watts: 400 }],
        };
        const model: SupplyModel = {
          ...base,
          label,
          kit: {
            ...base.kit,
            sockets: [{ label: socket, kind: 'main', output: rail }],
            cables: [
              ...base.kit.cables.map((cable) => ({ ...cable, output: rail })),
              {
                id: 'sixteen',
                family: 'card-16' as const,
                fixed: false,
                count: 1,
                gauge: 16 as const,
                codedWatts: 450 as const,
                output: rail,
                plugs: [{ kind: 'card-16' as const, millimetres: 600 }],
              },
              {
                id: 'own',
                family: 'main' as const,
                fixed: true,
                count: 1,
                gauge: 18 as const,
                ownPlug: socket,
                plugs: [{ kind: 'main-own' as const, millimetres: 500 }],
              },
            ],
          },
        };
        expect(supplyModelSchema.parse(supplyFromCells(supplyToCells(model)))).toEqual(model);
      }),
    );
  });
  it('are refused at the field where they are wrong', () => {
    const bad = (changes: Record<string, string>) => {
      const result = supplyModelSchema.safeParse(supplyFromCells({ ...supplyToCells(supplies[0]!), ...changes }));
      return result.success ? [] : fieldErrors(result.error).map((error) => error.path);
    };
    expect(bad({ rating_w: 'lots' })).toEqual(['label.ratingWatts']);
    expect(bad({ rating_w: '550,5' })).toEqual([]);
    expect(bad({ price: '' })).toEqual(['price.minor']);
    expect(bad({ currency: 'euro' })).toEqual(['price.currency']);
    expect(bad({ has_16_pin: 'perhaps' })).toEqual(['label.has16Pin']);
    expect(bad({ rails: '12V:+12:lots' })).toEqual(['label.rails.0.amps']);
    expect(bad({ cables: '' })).toContain('kit.cables');
    expect(bad({ cables: 'm:main:fixed:1:18:main-24@600; n:main:fixed:1:18:main-24@600' })).toEqual(['kit.cables']);
    expect(bad({ cables: 'm:main:fixed:1:18:main-own@600' })).toEqual(['kit.cables.0.ownPlug']);
    expect(bad({ cables: 'm:main:fixed:1:18:main-own@600:::North 10; n:main:fixed:1:18:main-24@600' })).toEqual([]);
    expect(bad({ cables: 'm:main:fixed:1:18:main-24@600:::North 10' })).toEqual(['kit.cables.0.ownPlug']);
    expect(bad({ cables: 'm:main:loose:1:18:main-24@600' })).toEqual(['kit.cables.0.fixed']);
    expect(bad({ mains_low_v: '240', mains_high_v: '200' })).toEqual(['mainsHighVolts']);
    expect(bad({ sockets: 'Main:main:12V9' })).toEqual(['kit.sockets.0.output']);
  });
});

describe('parts as rows', () => {
  it('come back as they were', () => {
    const part = ownPartSchema.parse(partFromCells({ name: 'Plotter card', class: 'card-8', likely_w: '160' }));
    expect(part).toMatchObject({
      id: 'plotter-card',
      figures: { likelyWatts: 160, lowWatts: 128, highWatts: 192, source: 'manual', excursion: 'card-older' },
      inlets: [{ kind: 'card-8' }],
    });
    expect(ownPartSchema.parse(partFromCells(partToCells(part)))).toEqual(part);
  });
  it("take the class's figures where nothing is said, and are refused where it is wrong", () => {
    expect(ownPartSchema.parse(partFromCells({ name: 'Plain', class: 'drive-35' })).figures.spinUpAmps).toBe(2.2);
    const bad = (cells: Record<string, string>) => {
      const result = ownPartSchema.safeParse(partFromCells(cells));
      return result.success ? [] : fieldErrors(result.error).map((error) => error.path);
    };
    expect(bad({ name: 'X', class: 'no-such' })).toContain('classId');
    expect(bad({ name: 'X', class: 'drive-35', likely_w: 'many' })).toContain('figures.likelyWatts');
    expect(bad({ name: 'X', class: 'drive-35', share_12: '0.9', share_5: '0.9' })).toContain('figures.share12');
    expect(bad({ name: '', class: 'drive-35', id: 'x' })).toContain('name');
    expect(bad({ name: 'X', class: 'drive-35', inlets: 'socket/Here' })).toContain('inlets.0.kind');
  });
});
