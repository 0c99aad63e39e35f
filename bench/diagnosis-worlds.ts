import { compileModel, type Bench, type Model } from '@fairwatt/core';
import {
  disturbed,
  drawJob,
  knowsTheFault,
  ourOrder,
  remembering,
  search,
  seeded,
  type Order,
  type SearchResult,
} from '@fairwatt/core/simulate';
import { fixedOrder, fixedOrders } from './fixed-orders.ts';

export const bench: Bench = {
  has: ['meter', 'tester', 'spare-supply', 'spare-memory', 'spare-card'],
  mayMeterMains: true,
};

/** The simulated worlds with their seeds and what is wanted in each. */
export function worlds(shipped: Model) {
  return [
    { title: 'The world is as the knowledge says', world: shipped, seed: 1137, wanted: { mean: 0.6, wrong: 0.03 } },
    {
      title: 'The world is disturbed: each figure off by a log-normal factor of deviation 0.5',
      world: compileModel(disturbed(shipped.knowledge, 0.5, seeded(4711))),
      seed: 2255,
      wanted: { mean: 0.75, wrong: 0.06 },
    },
  ] as const;
}

/** What became of one share of the drawn jobs, by order; every order gets the same jobs. */
export function searchShare(
  shipped: Model,
  which: number,
  jobs: number,
  share: number,
  shares: number,
): Record<string, SearchResult[]> {
  const { world, seed } = worlds(shipped)[which]!;
  const random = seeded(seed);
  const drawn = Array.from({ length: jobs }, () => drawJob(world, random)).filter(
    (_, index) => index % shares === share,
  );
  const orders: Record<string, Order> = {
    'our order': remembering(ourOrder(shipped, bench, 0.9)),
    ...Object.fromEntries(Object.entries(fixedOrders).map(([name, steps]) => [name, fixedOrder(shipped, steps)])),
    'knows the fault': knowsTheFault(world),
  };
  return Object.fromEntries(
    Object.entries(orders).map(([name, order]) => [name, drawn.map((job) => search(world, job, order))]),
  );
}
