import { describe, expect, it } from 'vitest';
import { cableFigures, planCables, type CableKit, type InletToServe } from './index.ts';

const inlet = (id: string, kind: InletToServe['kind'], extra: Partial<InletToServe> = {}): InletToServe => ({
  id,
  kind,
  optional: false,
  place: 'slots',
  reachMillimetres: 300,
  amps12: 0,
  amps5: 0,
  amps33: 0,
  ...extra,
});
const figuresFor = (kit: CableKit, inlets: readonly InletToServe[], celsius = 20) =>
  cableFigures(kit, inlets, planCables(kit, inlets), [], celsius);

describe('what a cable carries', () => {
  it('a card cable, by Ohm: three wires out, the grounds back, two contacts each way', () => {
    const kit: CableKit = {
      sockets: [{ label: 'CARD', kind: 'card' }],
      cables: [
        { id: 'c', family: 'card', fixed: false, count: 1, gauge: 18, plugs: [{ kind: 'card-6+2', millimetres: 600 }] },
      ],
    };
    const [figures] = figuresFor(kit, [inlet('g', 'card-8', { amps12: 12 })]);
    expect(figures).toMatchObject({ conductorAmps: 4, conductors: 3, mostAmps: 7, rail: '+12' });
    // 20.95 mOhm a metre over 0.6 m; 12 A over three wires out, over three grounds back (sense pins are no way back).
    const wire = 0.02095 * 0.6;
    expect(figures!.plugs[0]!.dropVolts).toBeCloseTo(wire * (12 / 3 + 12 / 3) + 2 * 0.005 * (12 / 3 + 12 / 3), 9);
    expect(figures!.plugs[0]!.plugHeatWatts).toBeCloseTo(0.005 * (144 / 3 + 144 / 3), 9);
    // Warm copper has 0.393 % more resistance for each degree.
    const warm = figuresFor(kit, [inlet('g', 'card-8', { amps12: 12 })], 70)[0]!.plugs[0]!.dropVolts;
    expect(warm - figures!.plugs[0]!.dropVolts).toBeCloseTo(wire * (12 / 3 + 12 / 3) * 0.00393 * 50, 9);
  });
  it('a chain, stretch by stretch: what hangs farther out loses more, and loads the first stretch for all', () => {
    const kit: CableKit = {
      sockets: [{ label: 'D', kind: 'drive' }],
      cables: [
        {
          id: 's',
          family: 'drive',
          fixed: false,
          count: 1,
          gauge: 18,
          plugs: [
            { kind: 'sata', millimetres: 400 },
            { kind: 'sata', millimetres: 600 },
          ],
        },
      ],
    };
    const [figures] = figuresFor(kit, [
      inlet('a', 'sata', { amps12: 2, place: 'drive-cage' }),
      inlet('b', 'sata', { amps12: 1, reachMillimetres: 500, place: 'drive-cage' }),
    ]);
    const near = figures!.plugs.find((plug) => plug.inletId === 'a')!;
    const far = figures!.plugs.find((plug) => plug.inletId === 'b')!;
    const mohm = 0.02095;
    const supplyEnd = 0.005 * (3 + 3 / 2);
    expect(near.dropVolts).toBeCloseTo(mohm * 0.4 * (3 + 3 / 2) + supplyEnd + 0.005 * (2 / 3 + 2 / 5), 9);
    expect(far.dropVolts).toBeCloseTo(
      mohm * 0.4 * (3 + 3 / 2) + mohm * 0.2 * (1 + 1 / 2) + supplyEnd + 0.005 * (1 / 3 + 1 / 5),
      9,
    );
    expect(figures).toMatchObject({ conductorAmps: 3, conductors: 1, mostAmps: 7 });
  });
  it('nothing that is known loses nothing', () => {
    const kit: CableKit = {
      sockets: [{ label: 'P', kind: 'cpu' }],
      cables: [
        { id: 'p', family: 'cpu', fixed: false, count: 1, gauge: 22, plugs: [{ kind: 'cpu-8', millimetres: 600 }] },
      ],
    };
    expect(figuresFor(kit, [inlet('p', 'cpu-8')])[0]).toMatchObject({
      rail: null,
      conductorAmps: 0,
      mostAmps: 3,
      plugs: [{ rail: null, dropVolts: 0, plugHeatWatts: 0 }],
    });
  });
  it("an adapter's legs share the card's current", () => {
    const kit: CableKit = {
      sockets: [
        { label: 'A', kind: 'card' },
        { label: 'B', kind: 'card' },
      ],
      cables: [
        { id: 'c', family: 'card', fixed: false, count: 2, gauge: 16, plugs: [{ kind: 'card-6+2', millimetres: 600 }] },
      ],
    };
    const adapter = {
      id: 'two',
      takes: 'card-8',
      gives: 'card-16',
      legs: 2,
      moulded: false,
      addsMillimetres: 100,
      watts: 300,
      count: 1,
    } as const;
    const inlets = [inlet('g', 'card-16', { amps12: 24 })];
    const plan = planCables(kit, inlets, { allowShared: true, adapters: [adapter], pins: [] });
    expect(cableFigures(kit, inlets, plan, [adapter]).map((cable) => cable.conductorAmps)).toEqual([4, 4]);
  });
});
