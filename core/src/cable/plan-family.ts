import type { Adapter, InletToServe, KitCable } from './kit.ts';
import type { OpenReason } from './plan.ts';
import { inletsBehind, isPair, servesInlet } from './pairs.ts';
import { addScores, noScore, type PlanScore } from './score.ts';
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
/** Steps for one plan: a tenth of a second or so. */
const mostStepsOfPlan = 10_000;
export const newBudget = (steps = mostStepsOfPlan): Budget => ({ left: steps });
export const noExtras: FamilyExtras = { adapters: [], placed: [] };

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
