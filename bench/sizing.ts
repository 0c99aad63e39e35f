import { performance } from 'node:perf_hooks';
import {
  candidateRow,
  drawLoads,
  planCables,
  rankSupplies,
  firstChoosing,
  partsAt,
  type Job,
  type SupplyModel,
} from '@fairwatt/core';
import { seeded } from '@fairwatt/core/simulate';
import { asking, tower } from '../core/src/supply/machines.test-help.ts';

/** Supplies after those of the demo shop, each with rating, price, depth and cable lengths of its own. */
export function manySupplies(shipped: readonly SupplyModel[], count: number): SupplyModel[] {
  const random = seeded(11);
  return Array.from({ length: count }, (_, index) => {
    const base = shipped[index % shipped.length]!;
    const factor = 0.7 + 0.6 * random();
    const longer = Math.round((random() - 0.3) * 12) * 10;
    return {
      ...base,
      id: `${base.id}-${index}`,
      name: `${base.name} ${index}`,
      depthMillimetres: base.depthMillimetres + Math.round(random() * 30),
      price: { ...base.price, minor: Math.round(base.price.minor * (0.6 + 0.8 * random())) },
      label: {
        ...base.label,
        ratingWatts: Math.round((base.label.ratingWatts * factor) / 10) * 10,
        rails: base.label.rails.map((rail) =>
          rail.rail === '+12' ? { ...rail, amps: Math.round(rail.amps * factor) } : rail,
        ),
      },
      kit: {
        ...base.kit,
        cables: base.kit.cables.map((cable) => ({
          ...cable,
          plugs: cable.plugs.map((plug) => ({ ...plug, millimetres: Math.max(50, plug.millimetres + longer) })),
        })),
      },
    };
  });
}

const best = (work: () => void, times = 3) =>
  Math.min(
    ...Array.from({ length: times }, () => {
      const begun = performance.now();
      work();
      return performance.now() - begun;
    }),
  );

/** Ranking 5,000 supplies with the full cable plan of each, 100 after a change, and 100,000 draws; in milliseconds. */
export function timeSizing(
  job: Job,
  supplies: readonly SupplyModel[],
): {
  readonly copy: number;
  readonly rank: number;
  readonly planAlone: number;
  readonly change: number;
  readonly draws: number;
  readonly plainDraws: number;
} {
  const question = () => asking(partsAt(job.parts, 'planned'), { ...tower, depthMillimetres: 200 });
  const many = manySupplies(supplies, 5000);
  const hundred = many.slice(0, 100);
  const planned = partsAt(job.parts, 'planned');
  const asked = question();
  return {
    copy: best(() => {
      structuredClone(many);
    }),
    rank: best(() => {
      rankSupplies(many, asked, firstChoosing.weights, 'EUR').map(candidateRow);
    }),
    planAlone: best(() => {
      for (const model of many) planCables(model.kit, asked.inlets);
    }, 1),
    change: best(() => {
      rankSupplies(hundred, question(), firstChoosing.weights, 'EUR').map(candidateRow);
    }),
    draws: best(() => {
      drawLoads(planned, supplies[0]!.label, seeded(1), 100_000);
    }),
    plainDraws: best(() => {
      const random = seeded(1);
      let sum = 0;
      for (let draw = 0; draw < 100_000 * planned.length; draw += 1) sum += random();
      if (sum < 0) throw new Error('cannot be');
    }),
  };
}
