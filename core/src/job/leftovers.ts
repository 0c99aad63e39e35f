import type { BagCable, CableBags, KitPlug } from '../cable/index.ts';
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
  const note = `Left over from ${job.code}`;
  const cameWith = chosen.name.slice(0, 60);
  const labels = new Set(bags.cables.map(({ label }) => label));
  // Pieces that are alike stand for each other: as many as are in the bags are there.
  const there = bags.cables.filter((cable) => cable.note === note && cable.cameWith === cameWith).map(kindOf);
  return pieces
    .filter((piece) => {
      const at = there.indexOf(kindOf(piece));
      if (at >= 0) there.splice(at, 1);
      return at < 0;
    })
    .map((cable): Leftover => ({
      label: freeLabel(job.code, labels),
      place: '',
      family: cable.family,
      cameWith,
      note,
      gauge: cable.gauge,
      codedWatts: cable.codedWatts ?? null,
      plugs: cable.plugs.map(({ kind, millimetres }) => ({ kind, millimetres, ends: [] })),
    }));
}

/** What makes two pieces alike. */
const kindOf = ({ family, plugs }: Pick<BagCable, 'family'> & { readonly plugs: readonly KitPlug[] }): string =>
  [family, ...plugs.map(({ kind, millimetres }) => `${kind} ${millimetres}`)].join(', ');

/** The next label of a job that no bag has, which is taken with that. */
function freeLabel(code: string, labels: Set<string>): string {
  let number = 1;
  while (labels.has(`${code} ${number}`)) number += 1;
  labels.add(`${code} ${number}`);
  return `${code} ${number}`;
}
