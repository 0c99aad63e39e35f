import { partsAt } from '../machine/index.ts';
import { cableFigures, spareId, type BagCable, type CableFigures } from '../cable/index.ts';
import type { PlugKind } from '../standards/index.ts';
import { cableEnds, endsNamed, type Cabling, type InletRow } from './cabling.ts';
import type { Job, Signed } from './job.ts';
import { laidTo } from './laid-ways.ts';

/** A tag for one end of a cable. */
export interface CableTag {
  readonly cable: string;
  readonly end: 'supply' | 'device';
  /** What is at this end: the socket, or the inlet. */
  readonly here: string;
  /** What is at the other end; several inlets on a chain. */
  readonly there: string;
  /** At a device: the label of the adapter or extension between plug and inlet. */
  readonly through: string | null;
}

/** One line of the cable schedule: an inlet and what goes to it; the cables of an adapter's legs joined by plus. */
export interface ScheduleLine {
  readonly cable: string | null;
  /** `own`: the supply's; otherwise the label of the bag it comes from. */
  readonly source: string;
  readonly socketLabel: string | null;
  readonly plugKind: PlugKind | null;
  /** The label of the adapter or extension between plug and inlet. */
  readonly through: string | null;
  readonly inletLabel: string;
  readonly partName: string;
  readonly place: InletRow['place'];
  readonly way: string;
  readonly state: InletRow['state'];
  readonly seated: Signed | null;
  readonly rechecked: Signed | null;
  readonly slackMillimetres: number | null;
  readonly dropVolts: number | null;
}

/** What each planned cable carries; empty where the record is kept, since its gauge is not known. */
export function figuresOf(cabling: Cabling): CableFigures[] {
  return cabling.plan === null || cabling.kit === null
    ? []
    : cableFigures(cabling.kit, cabling.inlets, cabling.plan, cabling.rules.adapters);
}

/** A tag for each end of a cable at the supply and one for each of its plugs, cable by cable. */
export function tagsOf(cabling: Cabling): CableTag[] {
  const served = cabling.rows.filter((row) => row.state !== 'wrong');
  const codes = [...new Set(served.flatMap((row) => cableEnds(row).map((end) => end.cableCode)))].sort();
  return codes.flatMap((cable): CableTag[] => {
    const rows = served.filter((row) => cableEnds(row).some((end) => end.cableCode === cable));
    const socket = rows.flatMap((row) => cableEnds(row)).find((end) => end.cableCode === cable)?.socketLabel ?? 'fixed';
    const there = rows.map((row) => row.label).join(', ');
    return [
      ...endsNamed(cabling.kit, socket).map((here): CableTag => ({ cable, end: 'supply', here, there, through: null })),
      ...rows.map((row): CableTag => ({
        cable,
        end: 'device',
        here: row.label,
        there: socket,
        through: row.adapterLabel,
      })),
    ];
  });
}

/** As it was laid; else, where the cable is still the recorded one, as it was: another cable's way says nothing. */
function wayOf(job: Job, { basis }: Cabling, row: InletRow): string {
  const laid = laidTo(job, row);
  if (laid !== '' || basis === 'plan') return laid;
  return job.cables.find(({ plugs }) => plugs.some((plug) => plug.inletId === row.inletId))?.way ?? '';
}

/** The cable schedule in the order of the inlets. */
export function scheduleOf(job: Job, cabling: Cabling, bagCables: readonly BagCable[]): ScheduleLine[] {
  const figures = figuresOf(cabling).flatMap((cable) => cable.plugs);
  const inlets = new Map(
    partsAt(job.parts, 'planned').flatMap((part) => part.inlets.map((inlet) => [inlet.id, inlet])),
  );
  return cabling.rows
    .filter((row) => inlets.has(row.inletId))
    .map((row): ScheduleLine => {
      const spare = row.kitCableId === null ? null : spareId(row.kitCableId);
      return {
        cable:
          row.cableCode === null
            ? null
            : cableEnds(row)
                .map((end) => end.cableCode)
                .join(' + '),
        source: spare === null ? 'own' : (bagCables.find((cable) => cable.id === spare)?.label ?? spare),
        socketLabel:
          row.socketLabel === null
            ? null
            : cableEnds(row)
                .map((end) => end.socketLabel ?? 'fixed')
                .join(' + '),
        plugKind: row.plugKind,
        through: row.adapterLabel,
        inletLabel: row.label,
        partName: row.partName,
        place: row.place,
        way: wayOf(job, cabling, row),
        state: row.state,
        seated: row.state === 'seated' && row.seat !== null ? { by: row.seat.by, at: row.seat.at } : null,
        rechecked: row.seat?.rechecked ?? null,
        slackMillimetres: row.slackMillimetres,
        dropVolts: figures.find((plug) => plug.inletId === row.inletId)?.dropVolts ?? null,
      };
    });
}
