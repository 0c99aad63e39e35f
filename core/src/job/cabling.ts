import { plugServes, type InletKind, type PlugKind } from '../standards/index.ts';
import { partsAt } from '../machine/index.ts';
import { planCables, type OpenReason, type CablePlan } from '../cable/index.ts';
import { inletsToServe, type SupplyModel } from '../supply/index.ts';
import type { Job, JobPart, Seat } from './job.ts';

export type SeatState = 'seated' | 'to-seat' | 'open';

/** One inlet of the machine as it will be, with the plug that goes to it and how far that is. */
export interface InletRow {
  readonly inletId: string;
  readonly partId: string;
  readonly kind: InletKind;
  readonly label: string;
  readonly partName: string;
  readonly optional: boolean;
  readonly state: SeatState;
  readonly cableCode: string | null;
  readonly socketLabel: string | null;
  readonly plugKind: PlugKind | null;
  readonly plugIndex: number | null;
  readonly slackMillimetres: number | null;
  readonly openReason: OpenReason | null;
  readonly seat: Seat | null;
}

/** What goes where in this job. */
export interface Cabling {
  /** From the plan of the chosen supply, or from the record when the present one is kept. */
  readonly basis: 'plan' | 'record' | 'none';
  readonly rows: readonly InletRow[];
  readonly plan: CablePlan | null;
  /** Plugs of the record that fit no inlet they are said to go to. */
  readonly misfits: readonly { readonly cableId: string; readonly inletId: string; readonly plugKind: PlugKind }[];
}

interface Place { readonly cableCode: string; readonly socketLabel: string | null; readonly plugKind: PlugKind; readonly plugIndex: number; readonly slackMillimetres: number | null }

/** A tick counts only for the plug that the plan still sends to this inlet. */
function seatFor(job: Job, inletId: string, place: Place): Seat | null {
  return job.seats.find((seat) => seat.inletId === inletId && seat.cableCode === place.cableCode && seat.plugIndex === place.plugIndex) ?? null;
}

/** Is a connector seated: click heard, tug holds, gap even? */
export function isSeated(seat: Seat | null): boolean {
  return seat !== null && seat.click && seat.tug && seat.gap;
}

/** Joins plan or record with the ticks. Kit for `replace`, the recorded harness for `keep`. */
export function cablingOf(job: Job, chosen: SupplyModel | null, parts: readonly JobPart[] = job.parts, sharedCardCable = true): Cabling {
  const planned = partsAt(parts, 'planned');
  const inlets = inletsToServe(planned, job.sheet.layout);
  const places = new Map<string, Place>();
  const reasons = new Map<string, OpenReason>();
  const misfits: { cableId: string; inletId: string; plugKind: PlugKind }[] = [];
  let plan: CablePlan | null = null;
  let basis: Cabling['basis'] = 'none';
  if (job.choice?.kind === 'replace' && chosen !== null) {
    basis = 'plan';
    plan = planCables(chosen.kit, inlets, sharedCardCable);
    for (const item of plan.assignments) places.set(item.inletId, item);
    for (const item of plan.open) reasons.set(item.inletId, item.reason);
  } else if (job.cables.length > 0) {
    basis = 'record';
    for (const cable of job.cables) cable.plugs.forEach((plug, plugIndex) => {
      if (plug.inletId === null) return;
      const inlet = inlets.find((candidate) => candidate.id === plug.inletId);
      if (inlet === undefined) return;
      if (!plugServes(plug.kind, inlet.kind)) misfits.push({ cableId: cable.id, inletId: inlet.id, plugKind: plug.kind });
      else places.set(inlet.id, { cableCode: cable.label, socketLabel: cable.socketLabel === '' ? null : cable.socketLabel, plugKind: plug.kind, plugIndex, slackMillimetres: null });
    });
  }
  const rows = planned.flatMap((part) => part.inlets.map((inlet): InletRow => {
    const place = places.get(inlet.id) ?? null;
    const seat = place === null ? null : seatFor(job, inlet.id, place);
    return {
      inletId: inlet.id, partId: part.id, kind: inlet.kind, label: inlet.label, partName: part.name, optional: inlet.optional,
      state: place === null ? 'open' : isSeated(seat) ? 'seated' : 'to-seat',
      cableCode: place?.cableCode ?? null, socketLabel: place?.socketLabel ?? null, plugKind: place?.plugKind ?? null, plugIndex: place?.plugIndex ?? null,
      slackMillimetres: place?.slackMillimetres ?? null, openReason: reasons.get(inlet.id) ?? null, seat,
    };
  }));
  return { basis, rows, plan, misfits };
}

