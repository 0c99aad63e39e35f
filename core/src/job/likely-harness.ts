import { inletFamily, type CableFamily, type InletKind, type PlugKind } from '../standards/index.ts';
import { partsAt } from '../machine/index.ts';
import type { Job, RecordedCable } from './job.ts';

/** The plug that usually goes into an inlet. */
export const usualPlug: Record<InletKind, PlugKind> = {
  'main-24': 'main-20+4',
  'main-20': 'main-20',
  'aux-6': 'aux-6',
  'main-own': 'main-own',
  'cpu-8': 'cpu-4+4',
  'cpu-4': 'cpu-4',
  'card-16': 'card-16',
  'card-8': 'card-6+2',
  'card-6': 'card-6+2',
  sata: 'sata',
  'peripheral-4': 'peripheral-4',
  'small-drive-4': 'small-drive-4',
};

/**
 * Plugs that a cable of this family usually has in a row (bench practice); the flat and the old drive plug come on
 * cables of their own.
 */
export const usualPlugs: Readonly<Record<CableFamily, number>> = { main: 1, cpu: 1, card: 2, 'card-16': 1, drive: 4 };

/** The next free label: A to Z, then Z1 and on. */
export function nextCableLabel(taken: readonly string[]): string {
  for (let index = 0; ; index += 1) {
    const label = index < 26 ? String.fromCharCode(65 + index) : `Z${index - 25}`;
    if (!taken.includes(label)) return label;
  }
}

/**
 * Cables as they likely are, for the present inlets that nobody recorded one for: to start from and to correct, not to
 * trust. Inlets of one kind share a cable up to the plugs that such cables usually have.
 * @param makeId identifiers for the new cables
 */
export function likelyHarness(
  job: Pick<Job, 'parts' | 'cables'>,
  makeId: () => string,
): Omit<RecordedCable, 'version'>[] {
  const served = new Set(job.cables.flatMap((cable) => cable.plugs.flatMap((plug) => plug.inletId ?? [])));
  const open = partsAt(job.parts, 'present')
    .flatMap((part) => part.inlets)
    .filter((inlet) => !served.has(inlet.id));
  const labels = job.cables.map((cable) => cable.label);
  const groups: { key: string; most: number; plugs: { kind: PlugKind; inletId: string }[] }[] = [];
  for (const inlet of open) {
    const family = inletFamily(inlet.kind);
    const key = family === 'drive' ? inlet.kind : family;
    const room = groups.find((group) => group.key === key && group.plugs.length < group.most);
    const plug = { kind: usualPlug[inlet.kind], inletId: inlet.id };
    if (room === undefined) groups.push({ key, most: usualPlugs[family], plugs: [plug] });
    else room.plugs.push(plug);
  }
  return groups.map((group) => {
    const label = nextCableLabel(labels);
    labels.push(label);
    return { id: makeId(), label, socketLabel: '', plugs: group.plugs, way: '', tiesToCut: 0, likely: true };
  });
}
