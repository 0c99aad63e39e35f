import { limits, type CableFamily } from '../standards/index.ts';
import { carriedBy, isGraphics, isOverloaded, loadOf, rounding, spreadsFreely, type Carried } from './carried.ts';
import type { Adapter, InletToServe, KitCable, KitPlug } from './kit.ts';
import type { LegToServe, PlacedPlug, UsedCable } from './plan-family.ts';
import { betweenMillimetres } from './routing.ts';
import { noScore, type PlanScore } from './score.ts';

/** A plug of a piece, and what hangs on it while plans are tried. */
export interface Slot {
  readonly plug: KitPlug;
  inlet: LegToServe | null;
  /** Between the plug and the inlet. */
  adapter: Adapter | null;
}

/** One piece of the kit while plans are tried. */
export interface Piece {
  readonly cable: KitCable;
  /** Index among the pieces of the same cable, for breaking symmetry. */
  readonly copy: number;
  readonly slots: readonly Slot[];
  /** How many legs of adapters are on it: none or one. */
  legs: number;
  holdsSocket: boolean;
  carried: Carried;
  /** 1 where it carries more than its wires, contacts or code allow. */
  overload: 0 | 1;
  /** How many of its plugs are taken. */
  count: number;
}

const nothingCarried = carriedBy([]);

/** Every piece of these cables, with what is placed on it. */
export function piecesOf(cables: readonly KitCable[], placed: readonly PlacedPlug[]): readonly Piece[] {
  return cables.flatMap((cable) =>
    Array.from({ length: cable.count }, (_, copy) => {
      const piece: Piece = {
        cable,
        copy,
        slots: cable.plugs.map((plug) => ({ plug, inlet: null, adapter: null })),
        legs: 0,
        holdsSocket: false,
        carried: nothingCarried,
        overload: 0,
        count: 0,
      };
      for (const item of placed) {
        if (item.cable !== cable || item.copy !== copy) continue;
        const slot = piece.slots[item.plugIndex];
        if (slot === undefined) throw new RangeError(`${cable.id} has no plug ${item.plugIndex}`);
        put(piece, slot, item.inlet, item.adapter);
        piece.holdsSocket ||= item.holdsSocket;
      }
      return piece;
    }),
  );
}

/** What hangs on a piece changed: what it carries, and whether that is too much. */
function weigh(piece: Piece): void {
  piece.carried = piece.count === 0 ? nothingCarried : carriedBy(piece.slots.map(({ inlet }) => inlet));
  piece.overload = piece.count > 0 && isOverloaded(piece.cable, piece.carried) ? 1 : 0;
}

export function put(piece: Piece, slot: Slot, inlet: LegToServe, adapter: Adapter | null): void {
  slot.inlet = inlet;
  slot.adapter = adapter;
  if (inlet.leg !== undefined) piece.legs += 1;
  piece.count += 1;
  weigh(piece);
}

export function takeOff(piece: Piece, slot: Slot): void {
  if (slot.inlet?.leg !== undefined) piece.legs -= 1;
  slot.inlet = null;
  slot.adapter = null;
  piece.count -= 1;
  weigh(piece);
}

/** May this inlet join what already hangs on the piece? */
export function carries(family: CableFamily, piece: Piece, inlet: LegToServe, allowShared: boolean): boolean {
  if (piece.count === 0) return true;
  if (inlet.leg !== undefined || piece.legs > 0) return false;
  switch (family) {
    case 'main':
      return false;
    case 'cpu':
      return true;
    case 'card':
    case 'card-16':
      return allowShared && (piece.carried.amps12 + inlet.amps12) * 12 <= limits.sharedCardCableWatts + rounding;
    case 'drive':
      return !isOverloaded(piece.cable, carriedBy([...piece.slots.map((slot) => slot.inlet), inlet]));
  }
}

/** Does the cable between this plug and each other used one reach from inlet to inlet? */
export function spaced(piece: Piece, { plug }: Slot, inlet: InletToServe, addsMillimetres: number): boolean {
  if (piece.count === 0) return true;
  for (const other of piece.slots) {
    if (other.inlet === null) continue;
    const apart = Math.abs(other.plug.millimetres - plug.millimetres);
    if (apart + addsMillimetres + (other.adapter?.addsMillimetres ?? 0) < betweenMillimetres(inlet, other.inlet))
      return false;
  }
  return true;
}

/** Cable that is left over on a piece, in millimetres. */
function slackOn({ slots }: Piece): number {
  let sum = 0;
  for (const { plug, inlet, adapter } of slots)
    if (inlet !== null) sum += plug.millimetres + (adapter?.addsMillimetres ?? 0) - inlet.reachMillimetres;
  return sum;
}

/** The score of what stands there before anything is planned. */
export function placedScore(family: CableFamily, pieces: readonly Piece[]): PlanScore {
  let score = noScore;
  for (const piece of pieces) {
    if (piece.count === 0) continue;
    const adapters = piece.slots.filter(({ adapter }) => adapter !== null).length;
    score = {
      ...score,
      cables: score.cables + (spreadsFreely(family, piece.cable) ? 0 : 1),
      overloaded: score.overloaded + piece.overload,
      foreign: score.foreign + (piece.cable.spare === true ? 1 : 0) + adapters,
      sharing: score.sharing + (isGraphics(family) ? piece.count - 1 : 0),
      unevenness: score.unevenness + loadOf(piece.carried) ** 2,
      slackMillimetres: score.slackMillimetres + slackOn(piece),
    };
  }
  return score;
}

/** The pieces that have something on them, as a plan tells them. */
export function usedOf(pieces: readonly Piece[]): UsedCable[] {
  return pieces
    .filter(({ count }) => count > 0)
    .map(({ cable, copy, slots }) => ({
      cable,
      copy,
      plugs: slots.flatMap(({ inlet, adapter }, plugIndex) => (inlet === null ? [] : [{ plugIndex, inlet, adapter }])),
    }));
}
