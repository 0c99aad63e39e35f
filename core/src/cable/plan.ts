import { conductorAmps, inletFamily, limits, socketTakes, type CableFamily, type PlugKind } from '../standards/index.ts';
import type { CableKit, InletToServe, KitCable } from './kit.ts';
import { planFamily, type FamilyPlan } from './plan-family.ts';
import { addScores, compareScores, type PlanScore } from './score.ts';

/** One inlet with the plug that goes to it. */
export interface Assignment {
  readonly inletId: string;
  readonly cableCode: string;
  readonly kitCableId: string;
  readonly socketLabel: string | null;
  readonly plugIndex: number;
  readonly plugKind: PlugKind;
  readonly slackMillimetres: number;
}

/** A cable that is used, with what it carries. */
export interface PlannedCable {
  readonly code: string;
  readonly kitCableId: string;
  readonly family: CableFamily;
  readonly socketLabel: string | null;
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
  /** Pieces of the kit that stay in the bag. */
  readonly bagged: readonly { readonly kitCableId: string; readonly count: number }[];
  /** Graphics inlets that share a cable because there are too few. */
  readonly sharedCables: number;
  readonly score: PlanScore;
}

const familyOrder: readonly CableFamily[] = ['main', 'cpu', 'card-16', 'card', 'drive'];

function shareable(family: CableFamily): boolean {
  return family !== 'main';
}

/**
 * The best plan, exactly, by this order: required inlets served, optional inlets served, fewest graphics inlets that
 * share a cable, fewest cables, evenest load (least sum of squared amps), least slack. The same input gives the same plan.
 * Families of cables meet only in sockets that take several, so each family is solved for every number of sockets it
 * may get, and the shares that add up best are taken.
 * @param allowShared whether two graphics inlets may share a cable where the load allows it
 * @param solve how a family is solved; `rememberingPlanner` gives one that does not solve the same twice
 */
export function planCables(kit: CableKit, inlets: readonly InletToServe[], allowShared = true, solve: typeof planFamily = planFamily): CablePlan {
  const perFamily = new Map<CableFamily, FamilyPlan[]>();
  const own = (family: CableFamily) => kit.sockets.filter((socket) => socketTakes(socket.kind, family));
  const sharedSockets = kit.sockets.filter((socket) => socket.kind === 'cpu-card').length;
  for (const family of familyOrder) {
    const wanted = inlets.filter((inlet) => inletFamily(inlet.kind) === family);
    const cables = kit.cables.filter((cable) => cable.family === family);
    const exclusive = own(family).filter((socket) => socket.kind !== 'cpu-card').length;
    const extra = family === 'cpu' || family === 'card' ? sharedSockets : 0;
    const plans: FamilyPlan[] = [];
    for (let given = 0; given <= extra; given += 1) {
      const before = plans[given - 1];
      const enough = before !== undefined && before.modularUsed < exclusive + given - 1;
      plans.push(enough ? before : solve(family, cables, wanted, exclusive + given, allowShared && shareable(family)));
    }
    perFamily.set(family, plans);
  }
  const plansOf = (family: CableFamily) => perFamily.get(family)!;
  let split = 0;
  let best: PlanScore | null = null;
  for (let toCpu = 0; toCpu <= sharedSockets; toCpu += 1) {
    const score = addScores(plansOf('cpu')[toCpu]!.score, plansOf('card')[sharedSockets - toCpu]!.score);
    if (best === null || compareScores(score, best) < 0) { best = score; split = toCpu; }
  }
  const chosen = familyOrder.map((family) => {
    const plans = plansOf(family);
    return plans[family === 'cpu' ? split : family === 'card' ? sharedSockets - split : 0]!;
  });
  return assemble(kit, inlets, chosen);
}

function assemble(kit: CableKit, inlets: readonly InletToServe[], chosen: readonly FamilyPlan[]): CablePlan {
  const freeSockets = [...kit.sockets];
  const assignments: Assignment[] = [];
  const cables: PlannedCable[] = [];
  const usedCount = new Map<string, number>();
  let sharedCables = 0;
  const place = new Map(inlets.map((inlet, index) => [inlet.id, index]));
  const firstInlet = (used: FamilyPlan['cables'][number]) => Math.min(...used.plugs.map((item) => place.get(item.inlet.id)!));
  for (const plan of chosen) {
    // Sockets in the order of the inlets, so that wires cross as little as they need.
    for (const used of [...plan.cables].sort((a, b) => firstInlet(a) - firstInlet(b))) {
      const cable = used.cable;
      usedCount.set(cable.id, (usedCount.get(cable.id) ?? 0) + 1);
      let socketLabel: string | null = null;
      if (!cable.fixed) {
        const index = ['exact', 'shared'].map((pass) => freeSockets.findIndex((socket) => socketTakes(socket.kind, cable.family) && (pass === 'exact') === (socket.kind !== 'cpu-card'))).find((found) => found >= 0);
        if (index === undefined) throw new Error(`no socket left for ${cable.id}`);
        socketLabel = freeSockets.splice(index, 1)[0]!.label;
      }
      const code = `C${String(cables.length + 1).padStart(2, '0')}`;
      cables.push({ code, kitCableId: cable.id, family: cable.family, socketLabel, amps12: used.plugs.reduce((sum, item) => sum + item.inlet.amps12, 0), inletIds: used.plugs.map((item) => item.inlet.id) });
      if ((cable.family === 'card' || cable.family === 'card-16') && used.plugs.length > 1) sharedCables += 1;
      for (const item of used.plugs) {
        const plug = cable.plugs[item.plugIndex]!;
        assignments.push({ inletId: item.inlet.id, cableCode: code, kitCableId: cable.id, socketLabel, plugIndex: item.plugIndex, plugKind: plug.kind, slackMillimetres: plug.millimetres - item.inlet.reachMillimetres });
      }
    }
  }
  assignments.sort((a, b) => place.get(a.inletId)! - place.get(b.inletId)!);
  const open = chosen.flatMap((plan) => plan.open).sort((a, b) => place.get(a.inletId)! - place.get(b.inletId)!);
  const bagged = kit.cables.filter((cable) => !cable.fixed).map((cable) => ({ kitCableId: cable.id, count: cable.count - (usedCount.get(cable.id) ?? 0) })).filter((piece) => piece.count > 0);
  return { assignments, cables, open, bagged, sharedCables, score: chosen.map((plan) => plan.score).reduce(addScores) };
}

/** Amps the +12 conductors of a plug may carry in all; null for plugs whose count of conductors is not planned by. */
export function cableAmps12(cable: KitCable): number | null {
  const conductors: Partial<Record<CableFamily, number>> = { cpu: 4, card: 3, 'card-16': 6 };
  const count = conductors[cable.family];
  return count === undefined ? (cable.family === 'drive' ? limits.driveChainAmps : null) : count * conductorAmps[cable.gauge];
}

/** All of a cable that a plan depends on, kept with the cable: the same supplies are ranked at every change. */
const cableKeys = new WeakMap<KitCable, string>();
function cableKey(cable: KitCable): string {
  let key = cableKeys.get(cable);
  if (key === undefined) {
    key = `;${cable.count}${cable.fixed ? 'f' : 'm'}${cable.plugs.map((plug) => `,${plug.kind}@${plug.millimetres}`).join('')}`;
    cableKeys.set(cable, key);
  }
  return key;
}

/**
 * A way to solve families for one and the same machine that remembers what it has solved: kits of many supplies are made of
 * the same cables. Cables are told apart by all that a plan depends on, and named by their own ids again.
 */
export function rememberingPlanner(): typeof planFamily {
  const solved = new Map<string, { readonly cables: readonly KitCable[]; readonly plan: FamilyPlan }>();
  return (family, cables, inlets, sockets, allowShared) => {
    let key = `${family}|${sockets}|${allowShared}`;
    for (const cable of cables) key += cableKey(cable);
    const known = solved.get(key);
    if (known === undefined) {
      const plan = planFamily(family, cables, inlets, sockets, allowShared);
      solved.set(key, { cables, plan });
      return plan;
    }
    if (known.cables === cables) return known.plan;
    return { ...known.plan, cables: known.plan.cables.map((used) => ({ ...used, cable: cables[known.cables.indexOf(used.cable)]! })) };
  };
}
