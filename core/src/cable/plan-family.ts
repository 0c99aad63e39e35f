import { limits, plugServes, type CableFamily } from '../standards/index.ts';
import { adapterServes } from './adapters.ts';
import { carriedBy, isOverloaded, rounding, spreadsFreely, type Carried } from './carried.ts';
import type { Adapter, InletToServe, KitCable } from './kit.ts';
import type { OpenReason } from './plan.ts';
import { inletsBehind, isPair, servesInlet } from './pairs.ts';
import { betweenMillimetres } from './routing.ts';
import { addScores, compareScores, noScore, type PlanScore } from './score.ts';
import { hasRoom, noRoom, roomFor, type Room } from './supply-ends.ts';

/**
 * One leg of an adapter that several cables feed: it must be served, on a cable of its own, or the adapter is not used.
 */
export interface LegToServe extends InletToServe {
  readonly leg?: { readonly ofInletId: string; readonly adapterId: string } | undefined;
}

export interface ServedPlug {
  readonly plugIndex: number;
  readonly inlet: LegToServe;
  readonly adapter: Adapter | null;
}

/** One piece of the kit and the inlets on its plugs. */
export interface UsedCable {
  readonly cable: KitCable;
  readonly copy: number;
  readonly plugs: readonly ServedPlug[];
}

export interface FamilyPlan {
  readonly cables: readonly UsedCable[];
  readonly open: readonly { readonly inletId: string; readonly optional: boolean; readonly reason: OpenReason }[];
  /** The sockets that its cables take, without those that pins hold. */
  readonly taken: Room;
  readonly score: PlanScore;
  /** That no plan is better; false where the search was given up for its length and this is the best that was seen. */
  readonly proved: boolean;
}

/** A plug that stays where it was put; `holdsSocket` when its socket is taken out of the count already. */
export interface PlacedPlug {
  readonly cable: KitCable;
  readonly copy: number;
  readonly plugIndex: number;
  readonly inlet: InletToServe;
  /** What was put between plug and inlet by hand. */
  readonly adapter: Adapter | null;
  readonly holdsSocket: boolean;
}

export interface FamilyExtras {
  /** Adapters with one leg that may be used in this family. */
  readonly adapters: readonly Adapter[];
  readonly placed: readonly PlacedPlug[];
}
/**
 * Steps that searches may still take before they give the best they have seen; shared by all that belongs to one
 * question.
 */
export interface Budget {
  left: number;
}
/** Steps for one plan, and for one family of it: a tenth of a second or so. */
const mostStepsOfPlan = 10_000;
const mostSteps = 5_000;
/** Even with nothing left a first plan is looked for in so many. */
const hardlyAnySteps = 2_000;
export const newBudget = (steps = mostStepsOfPlan): Budget => ({ left: steps });
export const noExtras: FamilyExtras = { adapters: [], placed: [] };

interface Piece {
  readonly cable: KitCable;
  /** Index among the pieces of the same cable, for breaking symmetry. */
  readonly copy: number;
  readonly taken: (LegToServe | null)[];
  /** The adapter on each plug. */
  readonly via: (Adapter | null)[];
  /** How many legs of adapters are on it: none or one. */
  legs: number;
  holdsSocket: boolean;
  carried: Carried;
  /** 1 where it carries more than its wires, contacts or code allow. */
  overload: 0 | 1;
  count: number;
}

/** What it costs to leave an inlet without a plug. */
export function leftOpen(inlet: InletToServe): PlanScore {
  return inletsBehind(inlet)
    .map((one) =>
      one.optional
        ? { ...noScore, openOptional: 1 }
        : { ...noScore, openRequired: 1, openLarger: one.kind === 'cpu-8' ? 1 : 0 },
    )
    .reduce(addScores);
}

/** Cable left over when a plug at this distance goes to an inlet; both halves of one that comes apart count. */
export function slackOf(inlet: InletToServe, millimetres: number): number {
  return inletsBehind(inlet).reduce((sum, one) => sum + millimetres - one.reachMillimetres, 0);
}

/** May this inlet hang on this cable at all? Pumps and hubs, which keep a machine cool, not on a chain of thin wire. */
export function strongEnough(cable: Pick<KitCable, 'family' | 'gauge'>, inlet: Pick<InletToServe, 'cools'>): boolean {
  return cable.family !== 'drive' || inlet.cools !== true || cable.gauge <= 18;
}

/** May this inlet join what already hangs on the piece? */
function carries(family: CableFamily, piece: Piece, inlet: LegToServe, allowShared: boolean): boolean {
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
      return !isOverloaded(piece.cable, carriedBy([...piece.taken, inlet]));
  }
}

/** Does the cable between this plug and each other used one reach from inlet to inlet? */
function spaced(piece: Piece, plugIndex: number, inlet: InletToServe, addsMillimetres: number): boolean {
  if (piece.count === 0) return true;
  const { plugs } = piece.cable;
  for (let index = 0; index < plugs.length; index += 1) {
    const other = piece.taken[index];
    if (
      other != null &&
      Math.abs(plugs[index]!.millimetres - plugs[plugIndex]!.millimetres) +
        addsMillimetres +
        (piece.via[index]?.addsMillimetres ?? 0) <
        betweenMillimetres(inlet, other)
    )
      return false;
  }
  return true;
}

function loadOf({ amps12, amps5, amps33 }: Carried): number {
  return amps12 + amps5 + amps33;
}

const nothingCarried = carriedBy([]);

/** What hangs on a piece changed: what it carries, and whether that is too much. */
function weigh(piece: Piece): void {
  piece.carried = piece.count === 0 ? nothingCarried : carriedBy(piece.taken);
  piece.overload = piece.count > 0 && isOverloaded(piece.cable, piece.carried) ? 1 : 0;
}

/** What an inlet asks of a cable: its kind, where it is and what it carries. */
export const wantsOf = (inlet: InletToServe): string =>
  [
    inlet.kind,
    inlet.ownPlug ?? '',
    inlet.place,
    inlet.reachMillimetres,
    inlet.amps12,
    inlet.amps5,
    inlet.amps33,
    inlet.startAmps12 ?? 0,
    inlet.startAmps5 ?? 0,
    inlet.cools === true,
  ].join('|');

/** All of an inlet that a plan depends on: inlets with the same one may stand for each other. */
export function signature(inlet: LegToServe): string {
  let found = signatures.get(inlet);
  if (found === undefined) {
    found = [wantsOf(inlet), inlet.optional, inlet.leg?.ofInletId ?? '', isPair(inlet) ? inlet.id : ''].join('|');
    signatures.set(inlet, found);
  }
  return found;
}
const signatures = new WeakMap<LegToServe, string>();

/** What is open where this one is. */
export function openOf(cables: readonly KitCable[], inlet: LegToServe, room: Room): FamilyPlan['open'] {
  return inletsBehind(inlet).map((one) => ({
    inletId: one.id,
    optional: one.optional,
    reason: whyOpen(cables, one, room),
  }));
}

function whyOpen(cables: readonly KitCable[], inlet: InletToServe, room: Room): OpenReason {
  const fitting = cables
    .filter((cable) => strongEnough(cable, inlet))
    .flatMap((cable) =>
      cable.plugs.filter((plug) => servesInlet(plug.kind, cable, inlet)).map((plug) => ({ cable, plug })),
    );
  if (fitting.length === 0) return 'no-such-plug';
  const reaching = fitting.filter(({ plug }) => plug.millimetres >= inlet.reachMillimetres);
  if (reaching.length === 0) return 'too-short';
  return reaching.every(({ cable }) => !hasRoom(room, noRoom, roomFor(cable))) ? 'no-socket' : 'no-free-plug';
}

function put(piece: Piece, plugIndex: number, inlet: LegToServe, adapter: Adapter | null): void {
  piece.taken[plugIndex] = inlet;
  piece.via[plugIndex] = adapter;
  if (inlet.leg !== undefined) piece.legs += 1;
  piece.count += 1;
  weigh(piece);
}

function takeOff(piece: Piece, plugIndex: number, inlet: LegToServe): void {
  piece.taken[plugIndex] = null;
  piece.via[plugIndex] = null;
  if (inlet.leg !== undefined) piece.legs -= 1;
  piece.count -= 1;
  weigh(piece);
}

/** The score of what stands there before anything is planned. */
function placedScore(family: CableFamily, pieces: readonly Piece[]): PlanScore {
  let score = noScore;
  for (const piece of pieces) {
    if (piece.count === 0) continue;
    const graphics = (family === 'card' || family === 'card-16') && piece.count > 1 ? piece.count - 1 : 0;
    const slack = piece.taken.reduce(
      (sum, item, index) =>
        sum +
        (item === null
          ? 0
          : piece.cable.plugs[index]!.millimetres + (piece.via[index]?.addsMillimetres ?? 0) - item.reachMillimetres),
      0,
    );
    const adapters = piece.via.filter((adapter) => adapter !== null).length;
    score = {
      ...score,
      cables: score.cables + (spreadsFreely(family, piece.cable) ? 0 : 1),
      overloaded: score.overloaded + piece.overload,
      foreign: score.foreign + (piece.cable.spare === true ? 1 : 0) + adapters,
      sharing: score.sharing + graphics,
      unevenness: score.unevenness + loadOf(piece.carried) ** 2,
      slackMillimetres: score.slackMillimetres + slack,
    };
  }
  return score;
}

/**
 * Legs first, since they must be served; then required inlets, the farthest first; inlets that are alike beside each
 * other.
 */
export function inPlanOrder(inlets: readonly LegToServe[]): LegToServe[] {
  if (inlets.length < 2) return [...inlets];
  const keyed = inlets.map((inlet) => ({ inlet, key: signature(inlet) }));
  keyed.sort(
    (a, b) =>
      Number(b.inlet.leg !== undefined) - Number(a.inlet.leg !== undefined) ||
      Number(a.inlet.optional) - Number(b.inlet.optional) ||
      b.inlet.reachMillimetres - a.inlet.reachMillimetres ||
      (a.key < b.key ? -1 : a.key > b.key ? 1 : 0),
  );
  return keyed.map((item) => item.inlet);
}

/** A plug of a piece, by its number among all plugs. */
interface Place {
  readonly piece: Piece;
  readonly plug: number;
  readonly slot: number;
}

/**
 * From each place of the queue on, what the inlets still to come cost at least when all are served: each alone on a
 * cable, on the plug that leaves least over. What is left open instead costs more by a part of the score that goes
 * before.
 */
function leastToCome(
  queue: readonly LegToServe[],
  cables: readonly KitCable[],
  adapters: readonly Adapter[],
): readonly Pick<PlanScore, 'unevenness' | 'slackMillimetres'>[] {
  const adds = [0, ...adapters.map((adapter) => adapter.addsMillimetres)];
  const slack = (inlet: LegToServe) => {
    let least = Infinity;
    for (const cable of cables)
      for (const plug of cable.plugs)
        for (const more of adds)
          if (plug.millimetres + more >= inlet.reachMillimetres)
            least = Math.min(least, slackOf(inlet, plug.millimetres + more));
    return least === Infinity ? 0 : least;
  };
  const sums = [{ unevenness: 0, slackMillimetres: 0 }];
  for (const inlet of [...queue].reverse()) {
    const { unevenness, slackMillimetres } = sums[0]!;
    sums.unshift({
      unevenness: unevenness + (inlet.amps12 + inlet.amps5 + inlet.amps33) ** 2,
      slackMillimetres: slackMillimetres + slack(inlet),
    });
  }
  return sums;
}

/** What the pieces that hold a plug take of the sockets; those of pins are out of the count already. */
export function roomTaken(used: readonly { readonly cable: KitCable; readonly holdsSocket: boolean }[]): Room {
  let taken = noRoom;
  for (const { cable, holdsSocket } of used) {
    if (holdsSocket) continue;
    const asked = roomFor(cable);
    taken = { own: taken.own + asked.own, pairs: taken.pairs + asked.pairs };
  }
  return taken;
}

/**
 * The exact best way to serve one family's inlets with cables for which there is room, by depth-first search with a
 * bound: legs of adapters first, then required inlets, inlets alike take plugs in rising order,
 * pieces alike are opened in order.
 * @returns null when a leg cannot be served, or what is placed needs more sockets than there are
 */
export function searchFamily(
  family: CableFamily,
  cables: readonly KitCable[],
  inlets: readonly LegToServe[],
  room: Room,
  allowShared: boolean,
  extras: FamilyExtras = noExtras,
  budget: Budget = newBudget(),
): FamilyPlan | null {
  const most = Math.max(0, Math.min(mostSteps, budget.left));
  const queue = inPlanOrder(inlets);
  // How many required inlets stand at this place of the queue or after it.
  const requiredAfter: number[] = Array.from({ length: queue.length + 1 }, () => 0);
  for (let index = queue.length - 1; index >= 0; index -= 1)
    requiredAfter[index] = requiredAfter[index + 1]! + (queue[index]!.optional ? 0 : 1);
  const keys = queue.map(signature);
  const atLeast = leastToCome(queue, cables, extras.adapters);
  const pieces: Piece[] = cables.flatMap((cable) =>
    Array.from({ length: cable.count }, (_, copy): Piece => ({
      cable,
      copy,
      taken: cable.plugs.map(() => null),
      via: cable.plugs.map(() => null),
      legs: 0,
      holdsSocket: false,
      carried: nothingCarried,
      overload: 0,
      count: 0,
    })),
  );
  for (const item of extras.placed) {
    const piece = pieces.find((one) => one.cable === item.cable && one.copy === item.copy)!;
    put(piece, item.plugIndex, item.inlet, item.adapter);
    piece.holdsSocket ||= item.holdsSocket;
  }
  const { adapters } = extras;
  const left = adapters.map((adapter) => adapter.count);
  const graphics = family === 'card' || family === 'card-16';
  let best: { score: PlanScore; cables: UsedCable[]; open: LegToServe[] } | null = null;
  let steps = 0;
  let freePlugs = pieces.reduce((sum, piece) => sum + piece.taken.length - piece.count, 0);
  const open: LegToServe[] = [];
  const taken = { ...roomTaken(pieces.filter((piece) => piece.count > 0)) };
  if (!hasRoom(room, noRoom, taken)) return null;

  function snapshot(score: PlanScore): void {
    best = {
      score,
      open: [...open],
      cables: pieces
        .filter((piece) => piece.count > 0)
        .map((piece) => ({
          cable: piece.cable,
          copy: piece.copy,
          plugs: piece.taken.flatMap((inlet, plugIndex) =>
            inlet === null ? [] : [{ plugIndex, inlet, adapter: piece.via[plugIndex]! }],
          ),
        })),
    };
  }

  /** Puts the next inlet on this plug, through the adapter of this number (-1 for none), and goes on from there. */
  function tryPlug(depth: number, score: PlanScore, { piece, plug, slot }: Place, which: number): void {
    const inlet = queue[depth]!;
    const adapter = which < 0 ? null : adapters[which]!;
    const adds = adapter?.addsMillimetres ?? 0;
    const { millimetres } = piece.cable.plugs[plug]!;
    if (
      millimetres + adds < inlet.reachMillimetres ||
      !strongEnough(piece.cable, inlet) ||
      !spaced(piece, plug, inlet, adds)
    )
      return;
    const fresh = piece.count === 0;
    const before = loadOf(piece.carried);
    const overloadBefore = piece.overload;
    const asked = fresh ? roomFor(piece.cable) : noRoom;
    put(piece, plug, inlet, adapter);
    freePlugs -= 1;
    if (which >= 0) left[which]! -= 1;
    taken.own += asked.own;
    taken.pairs += asked.pairs;
    search(
      depth + 1,
      {
        openRequired: score.openRequired,
        openLarger: score.openLarger,
        overloaded: score.overloaded + piece.overload - overloadBefore,
        openOptional: score.openOptional,
        sharing: score.sharing + (graphics && !fresh ? 1 : 0),
        foreign: score.foreign + (fresh && piece.cable.spare === true ? 1 : 0) + (adapter === null ? 0 : 1),
        cables: score.cables + (fresh && !spreadsFreely(family, piece.cable) ? 1 : 0),
        unevenness: score.unevenness + loadOf(piece.carried) ** 2 - before ** 2,
        slackMillimetres: score.slackMillimetres + slackOf(inlet, millimetres + adds),
      },
      slot,
    );
    taken.own -= asked.own;
    taken.pairs -= asked.pairs;
    if (which >= 0) left[which]! += 1;
    takeOff(piece, plug, inlet);
    freePlugs += 1;
  }

  /** Tries every plug for the next inlet, in order: the first way down fills one cable after the other. */
  function tryPlugs(depth: number, score: PlanScore, lastSlot: number): void {
    const inlet = queue[depth]!;
    const alike = depth > 0 && keys[depth - 1] === keys[depth];
    const from = alike ? lastSlot + 1 : 0;
    let slot = 0;
    for (let index = 0; index < pieces.length; index += 1) {
      const piece = pieces[index]!;
      const fresh = piece.count === 0;
      const twinUnused = fresh && piece.copy > 0 && pieces[index - 1]!.count === 0;
      const blocked =
        twinUnused ||
        (fresh && !hasRoom(room, taken, roomFor(piece.cable))) ||
        !carries(family, piece, inlet, allowShared);
      for (let plug = 0; plug < piece.taken.length; plug += 1, slot += 1) {
        if (blocked || slot < from || piece.taken[plug] !== null) continue;
        const { kind } = piece.cable.plugs[plug]!;
        const at = { piece, plug, slot };
        if (servesInlet(kind, piece.cable, inlet)) tryPlug(depth, score, at, -1);
        if (inlet.leg !== undefined || isPair(inlet)) continue;
        for (let which = 0; which < adapters.length; which += 1)
          if (left[which]! > 0 && plugServes(kind, adapters[which]!.takes) && adapterServes(adapters[which]!, inlet))
            tryPlug(depth, score, at, which);
      }
    }
  }

  /**
   * Is nothing that follows from here better than the best? What is still to come costs at least what it costs alone.
   */
  function hopeless(depth: number, score: PlanScore): boolean {
    if (best === null) return false;
    if (score.openRequired + Math.max(0, requiredAfter[depth]! - freePlugs) > best.score.openRequired) return true;
    const { unevenness, slackMillimetres } = atLeast[depth]!;
    return (
      compareScores(
        {
          ...score,
          unevenness: score.unevenness + unevenness,
          slackMillimetres: score.slackMillimetres + slackMillimetres,
        },
        best.score,
      ) >= 0
    );
  }

  function search(depth: number, score: PlanScore, lastSlot: number): void {
    // With nothing found yet the first way down is gone to its end; legs that nothing serves are not tried for ever.
    const spent = steps > most;
    if (hopeless(depth, score) || (spent && (best !== null || steps > 4 * most + hardlyAnySteps))) return;
    steps += 1;
    const inlet = queue[depth];
    if (inlet === undefined) {
      snapshot(score);
      return;
    }
    tryPlugs(depth, score, lastSlot);
    if (inlet.leg !== undefined) return;
    open.push(inlet);
    search(depth + 1, addScores(score, leftOpen(inlet)), Number.MAX_SAFE_INTEGER);
    open.pop();
  }

  search(0, placedScore(family, pieces), -1);
  budget.left -= steps;
  const found = best as { score: PlanScore; cables: UsedCable[]; open: LegToServe[] } | null;
  if (found === null) return null;
  const holds = (used: UsedCable) =>
    pieces.find((piece) => piece.cable === used.cable && piece.copy === used.copy)!.holdsSocket;
  return {
    cables: found.cables,
    taken: roomTaken(found.cables.map((used) => ({ cable: used.cable, holdsSocket: holds(used) }))),
    score: found.score,
    proved: steps <= most,
    open: found.open.flatMap((inlet) => openOf(cables, inlet, room)),
  };
}
