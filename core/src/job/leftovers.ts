import type { BagCable, CableBags } from '../cable/index.ts';
import type { SupplyModel } from '../supply/index.ts';
import type { Cabling } from './cabling.ts';
import type { Job } from './job.ts';

/** A piece for the bags, before it has its place among them. */
export type Leftover = Omit<BagCable, 'id' | 'version'>;

/**
 * The pieces of the fitted supply's kit that no inlet of this machine needs, each with a label of its own, as spare
 * cables of that supply; those that are in the bags already are left out. Their wires are nobody's knowledge yet.
 */
export function leftoversOf(
  job: Pick<Job, 'code'>,
  { plan, kit }: Pick<Cabling, 'plan' | 'kit'>,
  chosen: Pick<SupplyModel, 'name'>,
  bags: Pick<CableBags, 'cables'>,
): Leftover[] {
  const pieces = (plan?.bagged ?? []).flatMap(({ kitCableId, count }) => {
    const cable = kit?.cables.find(({ id }) => id === kitCableId);
    return cable === undefined ? [] : Array.from({ length: count }, () => cable);
  });
  const there = new Set(bags.cables.map(({ label }) => label));
  return pieces
    .map((cable, index): Leftover => ({
      label: `${job.code} ${index + 1}`,
      place: '',
      family: cable.family,
      cameWith: chosen.name.slice(0, 60),
      note: `Left over from ${job.code}`,
      gauge: cable.gauge,
      codedWatts: cable.codedWatts ?? null,
      plugs: cable.plugs.map(({ kind, millimetres }) => ({ kind, millimetres, ends: [] })),
    }))
    .filter(({ label }) => !there.has(label));
}
