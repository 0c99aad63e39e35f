import { boundToBe } from '../bound-to-be.ts';
import { cableFamilies, inletFamily, socketTakes, type CableFamily, type PlugKind } from '../standards/index.ts';
import type { Adapter, CableKit, InletToServe, KitCable, Pin } from './kit.ts';
import { adapterRefusal, adapterServes } from './adapters.ts';
import { assemble } from './assemble.ts';
import { newBudget, type Budget, type FamilyExtras, type FamilyPlan, type LegToServe } from './plan-family.ts';
import { planFamily } from './solve-family.ts';
import { waysToPair } from './pairs.ts';
import { adaptersLeft, pieceKey, settlePins, type PinRefusal, type Settled } from './pins.ts';
import { addScores, compareScores, noScore, type PlanScore } from './score.ts';
import { roomFor, socketsForAll, type Room } from './supply-ends.ts';

/** One inlet with the plug that goes to it. A 16-pin inlet on an adapter stands once for each of its legs. */
export interface Assignment {
  readonly inletId: string;
  readonly cableCode: string;
  readonly kitCableId: string;
  readonly copy: number;
  /** Of a cable with two ends at the supply both sockets, as `CARD 1 + CARD 2`; null for a fixed cable. */
  readonly socketLabel: string | null;
  readonly plugIndex: number;
  readonly plugKind: PlugKind;
  readonly adapterId: string | null;
  readonly slackMillimetres: number;
  /** Put there by hand. */
  readonly pinned: boolean;
}

/** A cable that is used, with what it carries. */
export interface PlannedCable {
  readonly code: string;
  readonly kitCableId: string;
  readonly copy: number;
  readonly family: CableFamily;
  readonly socketLabel: string | null;
  readonly spare: boolean;
  readonly amps12: number;
  readonly inletIds: readonly string[];
}

export type OpenReason = 'no-such-plug' | 'too-short' | 'no-socket' | 'no-free-plug';

export interface OpenInlet {
  readonly inletId: string;
  readonly optional: boolean;
  readonly reason: OpenReason;
}

/** The plan for one supply and one machine. */
export interface CablePlan {
  readonly assignments: readonly Assignment[];
  readonly cables: readonly PlannedCable[];
  readonly open: readonly OpenInlet[];
  /** Inlets into which a hand put a plug that does not belong there. */
  readonly wrong: readonly {
    readonly inletId: string;
    readonly cableCode: string;
    readonly socketLabel: string | null;
    readonly plugIndex: number;
    readonly plugKind: PlugKind;
  }[];
  readonly refused: readonly PinRefusal[];
  /** Pieces of the kit that stay in the bag. */
  readonly bagged: readonly { readonly kitCableId: string; readonly count: number }[];
  /** Graphics inlets that share a cable because there are too few. */
  readonly sharedCables: number;
  readonly score: PlanScore;
  /** That no plan is better; false where so many different inlets are to be served that the search was given up. */
  readonly proved: boolean;
}

/** What a plan may use and must keep. */
export interface PlanRules {
  /** Whether two graphics inlets may share a cable where the load allows it. */
  readonly allowShared: boolean;
  /** Adapters and extensions at hand. Those that no rule allows are left alone. */
  readonly adapters: readonly Adapter[];
  readonly pins: readonly Pin[];
}
export const usualRules: PlanRules = { allowShared: true, adapters: [], pins: [] };

type Solve = typeof planFamily;
const familyOrder: readonly CableFamily[] = ['main', 'cpu', 'card-16', 'card', 'drive'];

/**
 * Every way to give 16-pin inlets an adapter of several cables or none: the legs to serve and the inlets that are left.
 */
function withLegs(
  inlets: readonly InletToServe[],
  adapters: readonly Adapter[],
): { readonly inlets: readonly LegToServe[]; readonly used: number }[] {
  let ways: { readonly inlets: readonly LegToServe[]; readonly used: number; readonly spent: readonly string[] }[] = [
    { inlets: [], used: 0, spent: [] },
  ];
  for (const inlet of inlets) {
    const fitting =
      inletFamily(inlet.kind) !== 'card-16'
        ? []
        : adapters.filter((adapter) => adapter.legs > 1 && adapterServes(adapter, inlet));
    ways = ways.flatMap((way) => [
      { ...way, inlets: [...way.inlets, inlet] },
      ...fitting
        .filter((adapter) => way.spent.filter((id) => id === adapter.id).length < adapter.count)
        .map((adapter) => ({
          used: way.used + 1,
          spent: [...way.spent, adapter.id],
          inlets: [
            ...way.inlets,
            ...Array.from({ length: adapter.legs }, (): LegToServe => ({
              ...inlet,
              kind: adapter.takes,
              reachMillimetres: inlet.reachMillimetres - adapter.addsMillimetres,
              amps12: inlet.amps12 / adapter.legs,
              leg: { ofInletId: inlet.id, adapterId: adapter.id },
            })),
          ],
        })),
    ]);
  }
  return ways;
}

/** How one family is solved with the sockets that it may take; null where these are too few for what must be served. */
type PlanWith = (room: Room) => FamilyPlan | null;

/**
 * A family's plans, each solved once. Where a plan with a little less room left some of that unused, more of it changes
 * nothing; so they are asked for in growing order.
 */
function plansByRoom(solve: PlanWith): PlanWith {
  const plans = new Map<string, FamilyPlan | null>();
  const known = (own: number, pairs: number) => plans.get(`${own} ${pairs}`);
  return ({ own, pairs }) => {
    const before = known(own, pairs);
    if (before !== undefined) return before;
    const fewer = known(own - 1, pairs);
    const fewerPairs = known(own, pairs - 1);
    const plan =
      fewer != null && fewer.taken.own < own - 1
        ? fewer
        : fewerPairs != null && fewerPairs.taken.pairs < pairs - 1
          ? fewerPairs
          : solve({ own, pairs });
    plans.set(`${own} ${pairs}`, plan);
    return plan;
  };
}

/**
 * The families' best plans for each share of the sockets that several families could use, and the shares that add up
 * best. Processor and card cables meet in sockets that take both; a 16-pin cable with two ends takes two sockets that
 * card cables could have.
 */
function bestShares(
  kit: CableKit,
  inlets: readonly LegToServe[],
  rules: PlanRules,
  settled: Settled,
  solve: Solve,
  known: Map<string, PlanWith>,
  budget: Budget,
): { readonly score: PlanScore; readonly chosen: readonly FamilyPlan[] } | null {
  const held = new Set([...settled.sockets.values()].flat());
  const free = socketsForAll(kit).filter((socket) => !held.has(socket));
  const shared = free.filter((socket) => socket.kind === 'cpu-card').length;
  const exclusive = (family: CableFamily) =>
    free.filter((socket) => socketTakes(socket.kind, family) && socket.kind !== 'cpu-card').length;
  const pinned = new Set(settled.placed.map((item) => item.inlet.id));
  const plansOf = (family: CableFamily): PlanWith => {
    const wanted = inlets.filter((inlet) => inletFamily(inlet.kind) === family && !pinned.has(inlet.id));
    // Another way to use adapters leaves most families as they were.
    const key = `${family} ${wanted.map((inlet) => `${inlet.id}${inlet.leg?.adapterId ?? ''}`).join(' ')}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    const cables = kit.cables.filter((cable) => cable.family === family && !isShutOut(cable, settled));
    const extras: FamilyExtras | undefined =
      rules.adapters.length === 0 && settled.placed.length === 0
        ? undefined
        : {
            adapters: rules.adapters.filter((adapter) => adapter.legs === 1 && inletFamily(adapter.takes) === family),
            placed: settled.placed.filter((item) => item.cable.family === family),
          };
    const allowShared = rules.allowShared && family !== 'main';
    const plans = plansByRoom((room) => solve(family, cables, wanted, room, allowShared, extras, budget));
    known.set(key, plans);
    return plans;
  };
  const [mainOf, cpuOf, sixteenOf, cardOf, driveOf] = familyOrder.map(plansOf) as [
    PlanWith,
    PlanWith,
    PlanWith,
    PlanWith,
    PlanWith,
  ];
  const main = mainOf({ own: exclusive('main'), pairs: 0 });
  const drive = driveOf({ own: exclusive('drive'), pairs: 0 });
  if (main === null || drive === null) return null;
  const cardSockets = exclusive('card');
  const mostPairs = Math.min(twoEndedPieces(kit), Math.floor((cardSockets + shared) / 2));
  for (let own = Math.max(0, cardSockets - 2 * mostPairs); own < cardSockets + shared; own += 1)
    cardOf({ own, pairs: 0 });
  let best: { score: PlanScore; chosen: readonly FamilyPlan[] } | null = null;
  for (let toCpu = 0; toCpu <= shared; toCpu += 1) {
    const cpu = cpuOf({ own: exclusive('cpu') + toCpu, pairs: 0 });
    if (cpu === null) continue;
    const left = cardSockets + shared - toCpu;
    for (let pairs = 0; pairs <= Math.min(mostPairs, Math.floor(left / 2)); pairs += 1) {
      const sixteen = sixteenOf({ own: exclusive('card-16'), pairs });
      const card = sixteen === null ? null : cardOf({ own: left - 2 * pairs, pairs: 0 });
      if (sixteen === null || card === null) continue;
      const chosen = [main, cpu, sixteen, card, drive];
      const score = chosen.map((plan) => plan.score).reduce(addScores);
      if (best === null || compareScores(score, best.score) < 0) best = { score, chosen };
    }
  }
  return best;
}

/** Is the one socket that this cable goes into held by another piece, put there by hand? */
function isShutOut({ id, onlySocket }: KitCable, { sockets }: Settled): boolean {
  if (onlySocket === undefined) return false;
  return [...sockets].some(([key, held]) => key !== pieceKey(id, 0) && held.some(({ label }) => label === onlySocket));
}

/** How many pieces of 16-pin cables with two ends a kit has. */
function twoEndedPieces({ cables }: CableKit): number {
  return cables.filter((cable) => roomFor(cable).pairs > 0).reduce((sum, cable) => sum + cable.count, 0);
}

/**
 * The best plan, exactly, by this order: required inlets served, of these the larger processor inlets, no cable
 * overloaded, optional inlets served, fewest graphics inlets that
 * share a cable, fewest pieces that are not of the supply's own kit, fewest cables, evenest load (least sum of squared
 * amps), least slack. The same input gives the same plan. Families of cables meet only in sockets that take several, or
 * of which one cable takes two, so each family is solved for every number of sockets it may get, and the shares that
 * add up best are taken; each way to give a 16-pin inlet an adapter is tried.
 * @param budget steps that the searches may take in all; where they end, the plan is the best seen and not proved
 * @param solve how a family is solved; `rememberingPlanner` gives one that does not solve the same twice
 */
export function planCables(
  kit: CableKit,
  inlets: readonly InletToServe[],
  rules: PlanRules = usualRules,
  solve: Solve = planFamily,
  budget: Budget = newBudget(),
): CablePlan {
  const extraRefusals: PinRefusal[] = [];
  const usable =
    rules.adapters.length === 0
      ? rules
      : { ...rules, adapters: rules.adapters.filter((adapter) => adapterRefusal(adapter) === null) };
  let settled = settlePins(kit, inlets, usable);
  for (;;) {
    const free: PlanRules = { ...usable, adapters: adaptersLeft(usable.adapters, settled) };
    const pinned = new Set(settled.placed.map((item) => item.inlet.id));
    let best: { score: PlanScore; chosen: readonly FamilyPlan[] } | null = null;
    const known = new Map<string, PlanWith>();
    const pairings = waysToPair(
      kit,
      inlets.filter((inlet) => !pinned.has(inlet.id)),
    );
    for (const way of pairings.flatMap((paired) => withLegs(paired, free.adapters))) {
      const found = bestShares(kit, way.inlets, free, settled, solve, known, budget);
      if (found === null) continue;
      const score = way.used === 0 ? found.score : addScores(found.score, { ...noScore, foreign: way.used });
      if (best === null || compareScores(score, best.score) < 0) best = { score, chosen: found.chosen };
    }
    if (best !== null)
      return assemble(kit, inlets, best.chosen, best.score, {
        ...settled,
        refused: [...settled.refused, ...extraRefusals],
      });
    // More cables put in by hand than there are sockets: the last of them goes.
    const last = [...settled.placed].reverse().find((item) => !item.cable.fixed && !item.holdsSocket);
    if (last === undefined) throw new Error('no plan although nothing stands in its way');
    extraRefusals.push({
      inletId: last.inlet.id,
      code: 'no-socket',
      kitCableId: last.cable.id,
      plugKind: boundToBe(last.cable.plugs[last.plugIndex], 'such plug').kind,
      socketLabel: null,
    });
    settled = {
      ...settled,
      placed: settled.placed.filter((item) => item !== last),
      misplaced: settled.misplaced.filter((item) => item.placed !== last),
    };
  }
}

/** All of a cable that a plan depends on, kept with the cable: the same supplies are ranked at every change. */
const cableKeys = new WeakMap<KitCable, string>();
function cableKey(cable: KitCable): string {
  let key = cableKeys.get(cable);
  if (key === undefined) {
    const { count, gauge, codedWatts, ownPlug, fixed, twoEnded, onlySocket, spare, plugs } = cable;
    const ends = plugs.map(({ kind, millimetres }) => `${kind}@${millimetres}`);
    key = JSON.stringify([
      count,
      gauge,
      codedWatts ?? 0,
      ownPlug ?? '',
      fixed,
      twoEnded === true,
      onlySocket !== undefined,
      spare === true,
      ends,
    ]);
    cableKeys.set(cable, key);
  }
  return key;
}

/**
 * A way to solve families for one and the same machine that remembers what it has solved: kits of many supplies are
 * made of the same cables. Cables are told apart by all that a plan depends on, and named by their own ids again. Where
 * something is pinned or adapted, nothing is remembered.
 */
export function rememberingPlanner(): Solve {
  const solved = new Map<string, { readonly cables: readonly KitCable[]; readonly plan: FamilyPlan | null }>();
  return (family, cables, inlets, room, allowShared, extras, budget) => {
    if (extras !== undefined) return planFamily(family, cables, inlets, room, allowShared, extras, budget);
    let key = `${family}|${room.own}|${room.pairs}|${allowShared}|${inlets.map((inlet) => inlet.id).join(' ')}`;
    for (const cable of cables) key += cableKey(cable);
    const known = solved.get(key);
    if (known === undefined) {
      const plan = planFamily(family, cables, inlets, room, allowShared, undefined, budget);
      solved.set(key, { cables, plan });
      return plan;
    }
    if (known.plan === null || known.cables === cables) return known.plan;
    return {
      ...known.plan,
      cables: known.plan.cables.map((used) => ({
        ...used,
        cable: boundToBe(cables[known.cables.indexOf(used.cable)], 'such cable'),
      })),
    };
  };
}

/** The families of cables that meet in sockets: what is short in one may be short because of the other. */
export function familiesMeeting(family: CableFamily): readonly CableFamily[] {
  return family === 'cpu' || family === 'card' || family === 'card-16'
    ? cableFamilies.filter((item) => item === 'cpu' || item === 'card' || item === 'card-16')
    : [family];
}
