import { foundHarm, type FoundHarm } from '../cable/index.ts';
import { partsAt } from '../machine/index.ts';
import { inletsToServe } from '../supply/index.ts';
import type { Job } from './job.ts';

/** What is wrong with the adapters that were found in the machine as it came, by inlet. */
export function foundHarms(job: Pick<Job, 'parts' | 'cables' | 'sheet'>): ReadonlyMap<string, FoundHarm> {
  const through = job.cables
    .flatMap(({ plugs }) => plugs)
    .flatMap(({ kind, inletId, through: adapter }) => (adapter === undefined ? [] : [{ kind, inletId, adapter }]));
  if (through.length === 0) return new Map();
  const { layout, staggeredStart } = job.sheet;
  const inlets = inletsToServe(partsAt(job.parts, 'present'), layout, { staggered: staggeredStart });
  const found = new Map<string, FoundHarm>();
  for (const plug of through) {
    const inlet = inlets.find(({ id }) => id === plug.inletId);
    const harm = inlet === undefined ? null : foundHarm(plug.kind, plug.adapter, inlet);
    if (inlet !== undefined && harm !== null) found.set(inlet.id, harm);
  }
  return found;
}
