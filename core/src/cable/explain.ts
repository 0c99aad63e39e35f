import { cableFamilies, inletFamily, socketTakes, type CableFamily } from '../standards/index.ts';
import type { Adapter, CableKit, InletToServe, KitCable, Socket } from './kit.ts';
import { plugFits } from './own-plug.ts';
import { newBudget, wantsOf, type Budget } from './plan-family.ts';
import { familiesMeeting, planCables, type CablePlan, type PlanRules } from './plan.ts';
import { endFamily, endsAtSupply } from './supply-ends.ts';

/** What stands in the way of serving a set of inlets: each alone would be enough if it were not so. */
export type Shortage =
  /** No plug of the kit goes into the inlet. */
  | { readonly code: 'plug-kind' }
  | { readonly code: 'cables'; readonly have: number }
  | { readonly code: 'sockets'; readonly have: number }
  | { readonly code: 'reach'; readonly missingMillimetres: number }
  /** Graphics inlets would have to share a cable, which the rule or their load forbids. */
  | { readonly code: 'sharing'; readonly by: 'rule' | 'load' }
  | { readonly code: 'chain-load' }
  /** The wires, contacts or code of the cables left do not carry it. */
  | { readonly code: 'wire-load' }
  | { readonly code: 'spacing' }
  /** Pumps and hubs, and only chains of thin wire left. */
  | { readonly code: 'thin-wire' };

/** The least that would serve the set. */
export type CableRemedy =
  | { readonly code: 'cable'; readonly kitCableId: string; readonly count: number }
  | {
      readonly code: 'extension';
      readonly inletId: string;
      readonly kind: InletToServe['kind'];
      readonly millimetres: number;
    }
  | { readonly code: 'adapter'; readonly adapterId: string }
  | { readonly code: 'spare'; readonly kitCableId: string }
  | { readonly code: 'allow-sharing' }
  | { readonly code: 'move-pin'; readonly inletId: string }
  | { readonly code: 'other-supply'; readonly family: CableFamily; readonly sockets: number };

/** Why an inlet stays open: the smallest set of inlets that cannot all be served, what is short, what would mend it. */
export interface OpenBecause {
  readonly inletId: string;
  readonly together: readonly string[];
  readonly shortages: readonly Shortage[];
  readonly remedies: readonly CableRemedy[];
  /** That the set is the smallest and the remedies are all; false where the search was given up for its length. */
  readonly proved: boolean;
}

/** Beside what the plan may use: what the shop has but its rules keep out of the plan. */
export interface HeldBack {
  readonly spares: CableKit['cables'];
  readonly adapters: readonly Adapter[];
}
const nothingHeldBack: HeldBack = { spares: [], adapters: [] };

/**
 * Steps that may be taken to explain all open inlets, at least for each, in one plan of it, and what a plan costs at
 * least for each of its inlets.
 */
const mostStepsInAll = 6_000;
const leastStepsEach = 400;
const stepsAPlan = 1_000;
const leastStepsAnInlet = 4;

/**
 * How much may be planned for one question, as the sum of squared sizes of the sets tried, before the smallest set is
 * no longer looked for; then a set from which nothing can be left out is given.
 */
const mostWork = 8000;

/** Subsets of a given size, inlets that are alike taken in order, so that no two subsets are the same in kind. */
function* subsets(classes: readonly (readonly InletToServe[])[], size: number, from = 0): Generator<InletToServe[]> {
  if (size === 0) {
    yield [];
    return;
  }
  const own = classes[from];
  if (own === undefined) return;
  for (let take = Math.min(size, own.length); take >= 0; take -= 1)
    for (const rest of subsets(classes, size - take, from + 1)) yield [...own.slice(0, take), ...rest];
}

/**
 * Why the open inlets of a plan are open. For each: the smallest set of served inlets that together with it cannot be
 * served, found by trying sets in rising size as long as that is quick; then each limit is lifted alone to see which of
 * them decides.
 * @param only one open inlet that is asked about; all of them otherwise
 */
export function explainOpen(
  kit: CableKit,
  inlets: readonly InletToServe[],
  rules: PlanRules,
  plan: CablePlan,
  heldBack: HeldBack = nothingHeldBack,
  only: string | null = null,
): OpenBecause[] {
  const served = new Set(plan.assignments.map((item) => item.inletId));
  const known = new Map<string, Omit<OpenBecause, 'inletId'>>();
  const asked = plan.open.filter((open) => only === null || open.inletId === only);
  const steps = Math.max(leastStepsEach, Math.floor(mostStepsInAll / Math.max(1, asked.length)));
  return asked.map((open): OpenBecause => {
    const inlet = inlets.find((item) => item.id === open.inletId)!;
    const families = familiesMeeting(inletFamily(inlet.kind));
    const around = inlets.filter((item) => served.has(item.id) && families.includes(inletFamily(item.kind)));
    const key = `${wantsOf(inlet)} ${around.map((item) => item.id).join(' ')}`;
    const before = known.get(key);
    if (before !== undefined)
      return { inletId: inlet.id, ...before, together: [inlet.id, ...before.together.slice(1)] };
    const told = explainOne(kit, inlet, around, rules, { heldBack, overloaded: plan.score.overloaded, steps });
    known.set(key, told);
    return { inletId: inlet.id, ...told };
  });
}

function explainOne(
  kit: CableKit,
  inlet: InletToServe,
  around: readonly InletToServe[],
  rules: PlanRules,
  { heldBack, overloaded, steps }: { readonly heldBack: HeldBack; readonly overloaded: number; readonly steps: number },
): Omit<OpenBecause, 'inletId'> {
  const budget = newBudget(steps);
  let sure = true;
  const asRequired = (set: readonly InletToServe[]) => set.map((item) => ({ ...item, optional: false }));
  const serves = (set: readonly InletToServe[], inKit = kit, byRules = rules) => {
    const own = newBudget(Math.max(0, Math.min(stepsAPlan, budget.left)));
    const given = own.left;
    const pins = byRules.pins.filter((pin) => set.some((item) => item.id === pin.inletId));
    const plan = planCables(inKit, asRequired(set), { ...byRules, pins }, undefined, own);
    budget.left -= leastStepsAnInlet * set.length + given - own.left;
    if (!plan.proved) sure = false;
    return plan.open.length === 0 && plan.wrong.length === 0 && plan.score.overloaded <= overloaded;
  };
  const together = smallestUnserved(inlet, around, serves, budget);
  /** With nothing left of the budget nothing more is found out. */
  const may: typeof serves = (...asked) => budget.left > 0 && serves(...asked);
  const set = asRequired(together);
  const family = inletFamily(inlet.kind);
  const own = (item: CableFamily) => together.some((one) => inletFamily(one.kind) === item);

  const hasPlug = (cable: KitCable) => cable.plugs.some(({ kind }) => plugFits(kind, cable, inlet));
  const shortages: Shortage[] = [];
  const remedies: CableRemedy[] = [];
  const plenty = together.length;
  // Of one that goes into one socket only, another piece would be of no use.
  const more = (cable: KitCable) => own(cable.family) && cable.onlySocket === undefined;
  const moreCables = {
    ...kit,
    cables: kit.cables.map((cable) => (more(cable) ? { ...cable, count: cable.count + plenty } : cable)),
  };
  const moreSockets = { ...kit, sockets: [...kit.sockets, ...socketsToSpare(kit, own, plenty)] };
  const longer = (millimetres: number, only?: string) =>
    set.map((item) =>
      only === undefined || item.id === only
        ? { ...item, reachMillimetres: item.reachMillimetres - millimetres }
        : item,
    );

  if (!kit.cables.some(hasPlug)) shortages.push({ code: 'plug-kind' });
  if (may(set, moreSockets)) shortages.push({ code: 'sockets', have: socketsFor(kit, family).length });
  if (may(set, moreCables)) {
    shortages.push({
      code: 'cables',
      have: kit.cables.filter(hasPlug).reduce((sum, cable) => sum + cable.count, 0),
    });
    for (let count = 1; count <= plenty && budget.left > 0; count += 1) {
      const one = kit.cables.find(
        (cable) =>
          !cable.fixed &&
          more(cable) &&
          may(set, {
            ...kit,
            cables: kit.cables.map((item) => (item === cable ? { ...item, count: item.count + count } : item)),
          }),
      );
      if (one !== undefined) {
        remedies.push({ code: 'cable', kitCableId: one.id, count });
        break;
      }
    }
  }
  const farthest = Math.max(...set.map((item) => item.reachMillimetres));
  if (may(longer(farthest))) {
    const least = set
      .flatMap((item) => {
        if (budget.left <= 0) return [];
        const millimetres = leastOf(item.reachMillimetres, (value) => may(longer(value, item.id)));
        return millimetres === null ? [] : [{ item, millimetres }];
      })
      .sort((a, b) => a.millimetres - b.millimetres)[0];
    if (least !== undefined) {
      shortages.push({ code: 'reach', missingMillimetres: least.millimetres });
      remedies.push({
        code: 'extension',
        inletId: least.item.id,
        kind: least.item.kind,
        millimetres: least.millimetres,
      });
    }
  }
  if (!rules.allowShared && may(set, kit, { ...rules, allowShared: true })) {
    shortages.push({ code: 'sharing', by: 'rule' });
    remedies.push({ code: 'allow-sharing' });
  }
  const light = set.map((item) => ({ ...item, amps12: 0, amps5: 0, amps33: 0, startAmps12: 0, startAmps5: 0 }));
  if (may(light)) shortages.push(loadShortage(family, set.length));
  if (
    set.length > 1 &&
    may(
      set.map((item) => ({
        ...item,
        place: 'floor' as const,
        reachMillimetres: Math.min(...set.map((one) => one.reachMillimetres)),
      })),
    ) &&
    !shortages.some((item) => item.code === 'reach')
  )
    shortages.push({ code: 'spacing' });
  if (set.some((item) => item.cools === true) && may(set.map((item) => ({ ...item, cools: false }))))
    shortages.push({ code: 'thin-wire' });
  for (const adapter of heldBack.adapters)
    if (may(set, kit, { ...rules, adapters: [...rules.adapters, adapter] }))
      remedies.push({ code: 'adapter', adapterId: adapter.id });
  for (const spare of heldBack.spares)
    if (may(set, { ...kit, cables: [...kit.cables, spare] })) remedies.push({ code: 'spare', kitCableId: spare.id });
  for (const pin of rules.pins)
    if (may(set, kit, { ...rules, pins: rules.pins.filter((item) => item !== pin) }))
      remedies.push({ code: 'move-pin', inletId: pin.inletId });
  if (remedies.length === 0)
    remedies.push({
      code: 'other-supply',
      family,
      sockets: set.filter((item) => inletFamily(item.kind) === family).length,
    });
  return { together: together.map((item) => item.id), shortages, remedies, proved: sure && budget.left > 0 };
}

/** The sockets that a kit's cables of this family could go into. */
function socketsFor({ sockets, cables }: CableKit, family: CableFamily): readonly Socket[] {
  const ends = cables.filter((cable) => cable.family === family && !cable.fixed).map(endFamily);
  return sockets.filter(({ kind }) => [family, ...ends].some((end) => socketTakes(kind, end)));
}

/** Sockets for `plenty` more cables of each kind that the kit has of these families. */
function socketsToSpare({ cables }: CableKit, own: (family: CableFamily) => boolean, plenty: number): Socket[] {
  const ofKit = cables
    .filter((cable) => own(cable.family) && endsAtSupply(cable) === 2)
    .flatMap((cable): readonly CableFamily[] => [endFamily(cable), endFamily(cable)]);
  return [...cableFamilies.filter(own), ...ofKit].flatMap((kind, at) =>
    Array.from({ length: plenty }, (_, index): Socket => ({ label: `more ${kind} ${at} ${index}`, kind })),
  );
}

/** Which limit of load stands in the way. */
function loadShortage(family: CableFamily, inlets: number): Shortage {
  if (family === 'drive') return { code: 'chain-load' };
  const shared = (family === 'card' || family === 'card-16') && inlets > 1;
  return shared ? { code: 'sharing', by: 'load' } : { code: 'wire-load' };
}

/** The smallest set with this inlet, out of it and the served ones, that cannot be served. */
function smallestUnserved(
  inlet: InletToServe,
  around: readonly InletToServe[],
  serves: (set: readonly InletToServe[]) => boolean,
  budget: Budget,
): InletToServe[] {
  const steps = budget.left;
  const classes = [...new Set(around.map(wantsOf))].map((key) => around.filter((item) => wantsOf(item) === key));
  let work = 0;
  for (let size = 0; size <= around.length; size += 1) {
    for (const others of subsets(classes, size)) {
      work += (size + 1) ** 2;
      if (work > mostWork || budget.left < steps / 2) return leftOutOneByOne(inlet, around, serves, budget);
      if (!serves([inlet, ...others])) return [inlet, ...others];
    }
  }
  return [inlet, ...around];
}

/** A set from which nothing can be left out: not always the smallest, but soon found. */
function leftOutOneByOne(
  inlet: InletToServe,
  around: readonly InletToServe[],
  serves: (set: readonly InletToServe[]) => boolean,
  budget: Budget,
): InletToServe[] {
  let kept = [...around];
  for (const item of around) {
    if (budget.left <= 0) break;
    const without = kept.filter((one) => one !== item);
    if (!serves([inlet, ...without])) kept = without;
  }
  return [inlet, ...kept];
}

/**
 * A whole ten of millimetres up to `most` that does, the least where longer never does worse; null when `most` does
 * not.
 */
function leastOf(most: number, does: (millimetres: number) => boolean): number | null {
  if (!does(most)) return null;
  let [low, high] = [0, Math.ceil(most / 10)];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (does(middle * 10)) high = middle;
    else low = middle;
  }
  return high * 10;
}
