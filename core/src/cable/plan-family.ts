import { conductorAmps, inletFamily, limits, plugServes, type CableFamily } from '../standards/index.ts';
import type { Adapter, InletToServe, KitCable } from './kit.ts';
import type { OpenReason } from './plan.ts';
import { betweenMillimetres } from './routing.ts';
import { addScores, compareScores, noScore, type PlanScore } from './score.ts';

/** One leg of an adapter that several cables feed: it must be served, on a cable of its own, or the adapter is not used. */
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
  readonly modularUsed: number;
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
  readonly holdsSocket: boolean;
}

export interface FamilyExtras {
  /** Adapters with one leg that may be used in this family. */
  readonly adapters: readonly Adapter[];
  readonly placed: readonly PlacedPlug[];
}
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
  amps12: number;
  amps5: number;
  amps33: number;
  count: number;
}

/** What it costs to leave an inlet without a plug. */
export function leftOpen(inlet: Pick<InletToServe, 'kind' | 'optional'>): PlanScore {
  return inlet.optional
    ? { ...noScore, openOptional: 1 }
    : { ...noScore, openRequired: 1, openLarger: inlet.kind === 'cpu-8' ? 1 : 0 };
}

/** Amps per voltage that a whole chain carries: one wire each, and no more than a chain of the usual gauge (bench practice). */
export function chainAmps(gauge: KitCable['gauge']): number {
  return Math.min(limits.driveChainAmps, conductorAmps[gauge]);
}

/** May this inlet hang on this cable at all? Pumps and hubs, which keep a machine cool, not on a chain of thin wire. */
export function strongEnough(cable: Pick<KitCable, 'family' | 'gauge'>, inlet: Pick<InletToServe, 'cools'>): boolean {
  return cable.family !== 'drive' || inlet.cools !== true || cable.gauge <= 18;
}

/** Sums of tenths may come out a hair above a limit that they meet exactly. */
export const rounding = 1e-9;

const perVoltage = ['amps12', 'amps5', 'amps33'] as const;

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
      return allowShared && (piece.amps12 + inlet.amps12) * 12 <= limits.sharedCardCableWatts + rounding;
    case 'drive':
      return perVoltage.every((key) => piece[key] + inlet[key] <= chainAmps(piece.cable.gauge) + rounding);
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

function load(piece: Piece): number {
  return piece.amps12 + piece.amps5 + piece.amps33;
}

/** All of an inlet that a plan depends on: inlets with the same one may stand for each other. */
export function signature(inlet: LegToServe): string {
  let found = signatures.get(inlet);
  if (found === undefined) {
    found = `${inlet.kind}|${inlet.optional}|${inlet.place}|${inlet.reachMillimetres}|${inlet.amps12}|${inlet.amps5}|${inlet.amps33}|${inlet.cools === true}|${inlet.leg?.ofInletId ?? ''}`;
    signatures.set(inlet, found);
  }
  return found;
}
const signatures = new WeakMap<LegToServe, string>();

export function whyOpen(cables: readonly KitCable[], inlet: InletToServe, sockets: number): OpenReason {
  const fitting = cables
    .filter((cable) => strongEnough(cable, inlet))
    .flatMap((cable) =>
      cable.plugs.filter((plug) => plugServes(plug.kind, inlet.kind)).map((plug) => ({ cable, plug })),
    );
  if (fitting.length === 0) return 'no-such-plug';
  const reaching = fitting.filter(({ plug }) => plug.millimetres >= inlet.reachMillimetres);
  if (reaching.length === 0) return 'too-short';
  return reaching.every(({ cable }) => !cable.fixed) && sockets === 0 ? 'no-socket' : 'no-free-plug';
}

function put(piece: Piece, plugIndex: number, inlet: LegToServe, adapter: Adapter | null): void {
  piece.taken[plugIndex] = inlet;
  piece.via[plugIndex] = adapter;
  if (inlet.leg !== undefined) piece.legs += 1;
  piece.count += 1;
  piece.amps12 += inlet.amps12;
  piece.amps5 += inlet.amps5;
  piece.amps33 += inlet.amps33;
}

function takeOff(piece: Piece, plugIndex: number, inlet: LegToServe): void {
  piece.taken[plugIndex] = null;
  piece.via[plugIndex] = null;
  if (inlet.leg !== undefined) piece.legs -= 1;
  piece.count -= 1;
  piece.amps12 -= inlet.amps12;
  piece.amps5 -= inlet.amps5;
  piece.amps33 -= inlet.amps33;
}

/** The score of what stands there before anything is planned. */
function placedScore(family: CableFamily, pieces: readonly Piece[]): PlanScore {
  let score = noScore;
  for (const piece of pieces) {
    if (piece.count === 0) continue;
    const graphics = (family === 'card' || family === 'card-16') && piece.count > 1 ? piece.count - 1 : 0;
    const slack = piece.taken.reduce(
      (sum, item, index) => sum + (item === null ? 0 : piece.cable.plugs[index]!.millimetres - item.reachMillimetres),
      0,
    );
    score = {
      ...score,
      cables: score.cables + 1,
      foreign: score.foreign + (piece.cable.spare === true ? 1 : 0),
      sharing: score.sharing + graphics,
      unevenness: score.unevenness + load(piece) ** 2,
      slackMillimetres: score.slackMillimetres + slack,
    };
  }
  return score;
}

/** Legs first, since they must be served; then required inlets, the farthest first; inlets that are alike beside each other. */
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

/** After so many steps the search takes the best it has seen. */
const mostSteps = 150_000;

/**
 * The exact best way to serve one family's inlets with at most `sockets` modular cables, by depth-first search with a
 * bound: legs of adapters first, then required inlets, inlets alike take plugs in rising order,
 * pieces alike are opened in order.
 * @returns null when a leg cannot be served, or what is placed needs more sockets than there are
 */
export function searchFamily(
  family: CableFamily,
  cables: readonly KitCable[],
  inlets: readonly LegToServe[],
  sockets: number,
  allowShared: boolean,
  extras: FamilyExtras = noExtras,
): FamilyPlan | null {
  const queue = inPlanOrder(inlets);
  // How many required inlets stand at this place of the queue or after it.
  const requiredAfter: number[] = Array.from({ length: queue.length + 1 }, () => 0);
  for (let index = queue.length - 1; index >= 0; index -= 1)
    requiredAfter[index] = requiredAfter[index + 1]! + (queue[index]!.optional ? 0 : 1);
  const keys = queue.map(signature);
  const pieces: Piece[] = cables.flatMap((cable) =>
    Array.from({ length: cable.count }, (_, copy): Piece => ({
      cable,
      copy,
      taken: cable.plugs.map(() => null),
      via: cable.plugs.map(() => null),
      legs: 0,
      holdsSocket: false,
      amps12: 0,
      amps5: 0,
      amps33: 0,
      count: 0,
    })),
  );
  for (const item of extras.placed) {
    const piece = pieces.find((one) => one.cable === item.cable && one.copy === item.copy)!;
    put(piece, item.plugIndex, item.inlet, null);
    piece.holdsSocket ||= item.holdsSocket;
  }
  const { adapters } = extras;
  const left = adapters.map((adapter) => adapter.count);
  const graphics = family === 'card' || family === 'card-16';
  let best: { score: PlanScore; cables: UsedCable[]; open: LegToServe[] } | null = null;
  let steps = 0;
  let freePlugs = pieces.reduce((sum, piece) => sum + piece.taken.length - piece.count, 0);
  const open: LegToServe[] = [];
  let modular = pieces.filter((piece) => piece.count > 0 && !piece.cable.fixed && !piece.holdsSocket).length;
  if (modular > sockets) return null;

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
  function tryPlug(depth: number, score: PlanScore, piece: Piece, plug: number, slot: number, which: number): void {
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
    const before = load(piece);
    put(piece, plug, inlet, adapter);
    freePlugs -= 1;
    if (which >= 0) left[which]! -= 1;
    if (fresh && !piece.cable.fixed) modular += 1;
    search(
      depth + 1,
      {
        openRequired: score.openRequired,
        openLarger: score.openLarger,
        openOptional: score.openOptional,
        sharing: score.sharing + (graphics && !fresh ? 1 : 0),
        foreign: score.foreign + (fresh && piece.cable.spare === true ? 1 : 0) + (adapter === null ? 0 : 1),
        cables: score.cables + (fresh ? 1 : 0),
        unevenness: score.unevenness + (before + inlet.amps12 + inlet.amps5 + inlet.amps33) ** 2 - before ** 2,
        slackMillimetres: score.slackMillimetres + millimetres + adds - inlet.reachMillimetres,
      },
      slot,
    );
    if (fresh && !piece.cable.fixed) modular -= 1;
    if (which >= 0) left[which]! += 1;
    takeOff(piece, plug, inlet);
    freePlugs += 1;
  }

  function search(depth: number, score: PlanScore, lastSlot: number): void {
    if (
      best !== null &&
      (steps > mostSteps ||
        score.openRequired + Math.max(0, requiredAfter[depth]! - freePlugs) > best.score.openRequired ||
        compareScores(score, best.score) >= 0)
    )
      return;
    steps += 1;
    const inlet = queue[depth];
    if (inlet === undefined) {
      snapshot(score);
      return;
    }
    const alike = depth > 0 && keys[depth - 1] === keys[depth];
    const from = alike ? lastSlot + 1 : 0;
    let slot = 0;
    for (let index = 0; index < pieces.length; index += 1) {
      const piece = pieces[index]!;
      const fresh = piece.count === 0;
      const twinUnused = fresh && piece.copy > 0 && pieces[index - 1]!.count === 0;
      const blocked =
        twinUnused ||
        (fresh && !piece.cable.fixed && modular >= sockets) ||
        !carries(family, piece, inlet, allowShared);
      for (let plug = 0; plug < piece.taken.length; plug += 1, slot += 1) {
        if (blocked || slot < from || piece.taken[plug] !== null) continue;
        const { kind } = piece.cable.plugs[plug]!;
        if (plugServes(kind, inlet.kind)) tryPlug(depth, score, piece, plug, slot, -1);
        if (inlet.leg === undefined)
          for (let which = 0; which < adapters.length; which += 1)
            if (
              left[which]! > 0 &&
              plugServes(kind, adapters[which]!.takes) &&
              plugServes(adapters[which]!.gives, inlet.kind)
            )
              tryPlug(depth, score, piece, plug, slot, which);
      }
    }
    if (inlet.leg !== undefined) return;
    open.push(inlet);
    search(depth + 1, addScores(score, leftOpen(inlet)), Number.MAX_SAFE_INTEGER);
    open.pop();
  }

  search(0, placedScore(family, pieces), -1);
  const found = best as { score: PlanScore; cables: UsedCable[]; open: LegToServe[] } | null;
  if (found === null) return null;
  const modularUsed = found.cables.filter(
    (used) =>
      !used.cable.fixed && !pieces.find((piece) => piece.cable === used.cable && piece.copy === used.copy)!.holdsSocket,
  ).length;
  return {
    cables: found.cables,
    modularUsed,
    score: found.score,
    proved: steps <= mostSteps,
    open: found.open.map((inlet) => ({
      inletId: inlet.id,
      optional: inlet.optional,
      reason: whyOpen(cables, inlet, sockets),
    })),
  };
}

/** May this adapter be used at all, and where? Only inside one purpose, but for a 16-pin plug made of separate 8-pin cables. */
export function adapterRefusal(
  adapter: Pick<Adapter, 'takes' | 'gives' | 'legs' | 'moulded' | 'watts'>,
): 'crosses-purposes' | 'moulded' | 'too-few-legs' | 'no-such-use' | null {
  const from = inletFamily(adapter.takes);
  const to = plugServes(adapter.gives, 'card-16')
    ? 'card-16'
    : (['main-24', 'cpu-8', 'cpu-4', 'card-8', 'card-6', 'sata', 'peripheral-4', 'small-drive-4'] as const)
        .filter((kind) => plugServes(adapter.gives, kind))
        .map(inletFamily)[0];
  if (to === undefined) return 'no-such-use';
  if (from === 'card' && to === 'card-16')
    return adapter.takes !== 'card-8' ||
      adapter.legs < 2 ||
      (adapter.watts !== null && adapter.watts > adapter.legs * limits.cardInletWatts['card-8'])
      ? 'too-few-legs'
      : null;
  if (from !== to) return 'crosses-purposes';
  if (adapter.legs !== 1) return 'no-such-use';
  if (adapter.moulded && adapter.takes === 'peripheral-4' && adapter.gives === 'sata') return 'moulded';
  return null;
}
