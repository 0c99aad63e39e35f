import { useState } from 'react';
import { pieceOf, seatChecks, type InletRow, type Pin, type SeatCheck } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';

const noTicks = { click: false, tug: false, gap: false, halves: false, bend: false, panel: false };

/** One connector after the other: which one is looked at, and what is done to it. */
export interface Seating {
  readonly current: InletRow;
  /** Somebody asked for this connector, or ticked at it. */
  readonly picked: boolean;
  readonly pick: (inletId: string | null) => void;
  readonly toSeat: readonly InletRow[];
  readonly seated: readonly InletRow[];
  /** The connector to seat after this one. */
  readonly after: InletRow | null;
  readonly checks: readonly SeatCheck[];
  /** Ticks what holds; with the last of it the next connector comes. */
  readonly seat: (changes: Partial<Record<SeatCheck, boolean>>) => void;
  /** Sets or takes back one tick; the connector stays. */
  readonly toggle: (check: SeatCheck) => void;
  /** The plug in one inlet goes to another, by hand. */
  readonly movePlug: (from: string, to: string) => void;
}

/** The connector that was asked for, else the first to seat, else one that is wrong. */
function currentOf(rows: readonly InletRow[], picked: string | null, cable: string | null): InletRow | null {
  return (
    rows.find((row) => row.inletId === picked) ??
    rows.find((row) => picked === null && row.cableCode === cable) ??
    rows.find((row) => row.state === 'to-seat') ??
    rows.find((row) => row.state === 'wrong') ??
    rows[0] ??
    null
  );
}

/** The next connector to seat behind this one, from the start again after the last. */
const nextAfter = (rows: readonly InletRow[], current: InletRow): InletRow | null => {
  const toSeat = rows.filter((row) => row.state === 'to-seat' && row !== current);
  return toSeat.find((row) => rows.indexOf(row) > rows.indexOf(current)) ?? toSeat[0] ?? null;
};

/** The piece of the kit whose plug is in an inlet, as a pin names it. */
const sourceOf = (row: InletRow | undefined): Pick<Pin, 'kitCableId' | 'copy' | 'plugIndex'> | null =>
  row?.kitCableId == null || row.copy === null || row.plugIndex === null
    ? null
    : { kitCableId: row.kitCableId, copy: row.copy, plugIndex: row.plugIndex };

/**
 * Seats connectors one by one; null where there is none.
 * @param asked what the address asks for: an inlet, or a cable of which the first connector is shown
 */
export function useSeating(asked: { readonly inlet: string | null; readonly cable: string | null }): Seating | null {
  const { job, view, act, locked, undone } = useDesk();
  const { rows } = view.cabling;
  const [picked, pick] = useState<string | null>(asked.inlet);
  const [shownUndone, setShownUndone] = useState(undone);
  // The connector whose tick was taken back stands there again.
  if (undone !== shownUndone) {
    setShownUndone(undone);
    const seat = undone?.find((one) => one.kind === 'put-seat');
    if (seat !== undefined) pick(seat.seat.inletId);
  }
  const current = currentOf(rows, picked, asked.cable);
  if (current === null) return null;

  function put(row: InletRow, changes: Partial<Record<SeatCheck, boolean>>): boolean {
    if (row.cableCode === null || row.plugIndex === null) return false;
    const stored = job.seats.find((item) => item.inletId === row.inletId);
    const { click, tug, gap, halves, bend, panel } = row.seat ?? noTicks;
    const { inletId, cableCode, plugIndex } = row;
    const ticks = { click, tug, gap, halves, bend, panel, ...changes };
    const seat = { inletId, cableCode, piece: pieceOf(row), plugIndex, ...ticks };
    return act({ kind: 'put-seat', basedOn: stored?.version ?? 0, seat }) === null;
  }
  const checks = current.plugKind === null ? [] : seatChecks(current.kind, current.plugKind);
  const after = nextAfter(rows, current);

  function movePlug(from: string, to: string): void {
    const own = job.pins.find((pin) => pin.inletId === from);
    const source = sourceOf(rows.find((item) => item.inletId === from)) ?? own;
    if (source === undefined || locked) return;
    if (own !== undefined && act({ kind: 'drop-pin', inletId: from, basedOn: own.version }) !== null) return;
    const there = job.pins.find((pin) => pin.inletId === to);
    const { kitCableId, copy, plugIndex } = source;
    const pin = { inletId: to, kitCableId, copy, plugIndex, socketLabel: null };
    if (act({ kind: 'put-pin', basedOn: there?.version ?? 0, pin }) === null) pick(to);
  }

  return {
    ...{ current, picked: picked !== null, pick, after, checks, movePlug },
    toSeat: rows.filter((row) => row.state === 'to-seat'),
    seated: rows.filter((row) => row.state === 'seated'),
    seat: (changes) => {
      const isLast = checks.every((check) => changes[check] === true || current.seat?.[check] === true);
      if (put(current, changes)) pick(isLast ? (after?.inletId ?? null) : current.inletId);
    },
    toggle: (check) => {
      pick(current.inletId);
      put(current, { [check]: current.seat?.[check] !== true });
    },
  };
}
