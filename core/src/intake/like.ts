import { newParts, partsAt } from '../machine/index.ts';
import type { Act, Job } from '../job/index.ts';
import type { SupplyModel } from '../supply/index.ts';

/**
 * What has to be done to a job so that its machine is like an earlier one: as that one left where its job is closed,
 * as it came otherwise. Figures keep their sources; a supply that was entered already stays.
 * @param fitted the supply that was fitted then, where the shop still knows it
 * @param makeId identifiers for new parts
 */
export function likeEarlier(earlier: Job, fitted: SupplyModel | null, job: Job, makeId: () => string): Act[] {
  const left = earlier.state === 'closed';
  const { layout, shapes, depthMillimetres, ownHoles, ventClosed, hindrances } = earlier.sheet;
  const acts: Act[] = [
    {
      kind: 'edit-sheet',
      changes: { layout, shapes, depthMillimetres, ownHoles, ventClosed, hindrances },
      basedOn: job.sheet.version,
    },
  ];
  const replaced = left && earlier.choice?.kind === 'replace';
  const supply = replaced ? fitted : earlier.supply;
  if (job.supply === null && supply !== null)
    acts.push({ kind: 'put-supply', supply: { name: supply.name, label: supply.label }, basedOn: 0 });
  const wanted = partsAt(earlier.parts, left ? 'planned' : 'present').map((part) => ({
    source: part,
    quantity: part.quantity,
    change: 'stays' as const,
  }));
  for (const part of newParts(wanted, job.parts, makeId)) acts.push({ kind: 'put-part', part, basedOn: 0 });
  return acts;
}
