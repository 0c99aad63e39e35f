import { cableEnds, casePlaces, endsNamed, type CasePlace, type InletRow } from '@fairwatt/core';

export interface DrawnSocket {
  readonly key: string;
  readonly label: string;
  readonly used: boolean;
  /** Somebody ticked that its cable is in. */
  readonly plugged: boolean;
}

/** An end of a cable at a socket that is drawn: one, or two where the cable has two plugs at the supply. */
export interface DrawnEnd {
  readonly cableCode: string;
  readonly key: string;
}

/** The inlets of one place in the case, and where its frame stands. */
export interface PlaceFrame {
  readonly place: CasePlace;
  readonly rows: readonly InletRow[];
  readonly top: number;
  readonly bottom: number;
}

/** Where everything of a harness stands, in the units of the drawing. */
export interface HarnessLayout {
  readonly height: number;
  readonly frames: readonly PlaceFrame[];
  /** The inlets from top to bottom. */
  readonly order: readonly InletRow[];
  readonly yOfInlet: (inletId: string) => number;
  /** The middle of each socket, in their order. */
  readonly socketYs: readonly number[];
  /** The ends of the cables that come to an inlet. */
  readonly endsOf: (row: InletRow) => readonly DrawnEnd[];
  /** The cable in a socket; null where there is none. */
  readonly cableIn: (key: string) => string | null;
}

/** Of the drawing: its width, the right edge of the panel, the left edge of the inlets. */
export const [width, panelRight, caseLeft] = [820, 196, 470] as const;
/** So far inlets and sockets stand apart at least: on a tablet that is still a target of 24 pixels. */
export const leastPitch = 26;
const headHeight = 20;
const gap = 4;
const top = 30;

function drawnEnds(row: InletRow, sockets: readonly DrawnSocket[]): readonly DrawnEnd[] {
  const kit = { sockets: sockets.map(({ key }) => ({ label: key })) };
  return cableEnds(row).flatMap(({ cableCode, socketLabel }) =>
    (socketLabel === null ? [`fixed ${cableCode}`] : endsNamed(kit, socketLabel)).map((key) => ({ cableCode, key })),
  );
}

/** Each at its place, but not before `from` nor nearer to the one before it than `least`. */
function downFrom(from: number, ys: readonly number[], least: number): number[] {
  let limit = from;
  return ys.map((y) => {
    const placed = Math.max(y, limit);
    limit = placed + least;
    return placed;
  });
}

/**
 * Sockets stay in the order of the panel, each as near to the middle of its inlets as the order and their height allow.
 */
export function socketPlaces(inletYs: readonly (readonly number[])[], height: number): number[] {
  const [top, bottom, least] = [46, height - 22, leastPitch];
  const even = (index: number) => top + ((index + 0.5) * (bottom - top)) / Math.max(1, inletYs.length);
  const ys = inletYs.map((list, index) =>
    list.length === 0 ? even(index) : list.reduce((sum, y) => sum + y, 0) / list.length,
  );
  // Apart from the one above, then up from the foot, then down from the head.
  const apart = downFrom(-Infinity, ys, least);
  const aboveFoot = downFrom(
    -bottom,
    [...apart].reverse().map((y) => -y),
    least,
  );
  return downFrom(
    top,
    aboveFoot.reverse().map((y) => -y),
    least,
  );
}

/**
 * The inlets by their places, which stand in the order of the sockets that usually serve them; inside a place the
 * inlets go by their sockets, so that few wires cross.
 */
function zonesOf(rows: readonly InletRow[], socketIndex: (row: InletRow) => number) {
  return casePlaces
    .map((place) => ({
      place,
      rows: rows
        .filter((row) => row.place === place)
        .sort((a, b) => socketIndex(a) - socketIndex(b) || rows.indexOf(a) - rows.indexOf(b)),
    }))
    .filter((zone) => zone.rows.length > 0);
}

/** Lays out a harness: a usual machine is seen whole, a large one is scrolled, or made larger. */
export function layOut(rows: readonly InletRow[], sockets: readonly DrawnSocket[]): HarnessLayout {
  const ends = new Map(rows.map((row) => [row, drawnEnds(row, sockets)]));
  const endsOf = (row: InletRow) => ends.get(row) ?? [];
  const zones = zonesOf(rows, (row) => {
    const found = sockets.findIndex((socket) => socket.key === endsOf(row)[0]?.key);
    return found < 0 ? sockets.length : found;
  });
  const rowHeight = Math.min(
    34,
    Math.max(leastPitch, (452 - zones.length * (headHeight + gap)) / Math.max(1, rows.length)),
  );
  const inletHeight = zones.length * headHeight + rows.length * rowHeight + (zones.length - 1) * gap;
  const height = top + Math.max(inletHeight, sockets.length * leastPitch + 44) + 6;
  const ys = new Map<string, number>();
  let y = top;
  const frames = zones.map((zone): PlaceFrame => {
    const begin = y;
    y += headHeight;
    for (const row of zone.rows) {
      ys.set(row.inletId, y + rowHeight / 2);
      y += rowHeight;
    }
    const bottom = y;
    y += gap;
    return { ...zone, top: begin, bottom };
  });
  const yOfInlet = (inletId: string) => ys.get(inletId) ?? top;
  const servedBy = (key: string) => rows.filter((row) => endsOf(row).some((end) => end.key === key));
  return {
    ...{ height, frames, yOfInlet, endsOf },
    order: frames.flatMap((frame) => frame.rows),
    socketYs: socketPlaces(
      sockets.map(({ key }) => servedBy(key).map(({ inletId }) => yOfInlet(inletId))),
      height,
    ),
    cableIn: (key) => rows.flatMap(endsOf).find((end) => end.key === key)?.cableCode ?? null,
  };
}
