import { boundToBe } from '../bound-to-be.ts';
import { cableFamilies, inletFamily, socketTakes, type CableFamily } from '../standards/index.ts';
import { isGraphics } from './carried.ts';
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
    const inlet = boundToBe(
      inlets.find((item) => item.id === open.inletId),
      `inlet ${open.inletId}`,
    );
    const families = familiesMeeting(inletFamily(inlet.kind));
    const around = inlets.filter((item) => served.has(item.id) && families.includes(inletFamily(item.kind)));
    const key = `${wantsOf(inlet)} ${around.map((item) => item.id).join(' ')}`;
    const before = known.get(key);
    if (before !== undefined)
      return { inletId: inlet.id, ...before, together: [inlet.id, ...before.together.slice(1)] };
    const { overloaded } = plan.score;
    const told = new Trial({ kit, inlet, around, rules, heldBack, overloaded }, steps).explain();
    known.set(key, told);
    return { inletId: inlet.id, ...told };
  });
}

/** What is asked about one open inlet. */
interface Question {
  readonly kit: CableKit;
  readonly inlet: InletToServe;
  /** The served inlets that it could be in the way of. */
  readonly around: readonly InletToServe[];
  readonly rules: PlanRules;
  readonly heldBack: HeldBack;
  /** Overloaded cables that the plan bears anyway. */
  readonly overloaded: number;
}

const asRequired = (set: readonly InletToServe[]) => set.map((item) => ({ ...item, optional: false }));

/** Plans that are tried for one open inlet, as long as its steps last; each limit is lifted alone. */
class Trial {
  /** What the smallest set that cannot be served is made of, all of it required. */
  private readonly set: readonly InletToServe[];
  private readonly together: readonly InletToServe[];
  private readonly question: Question;
  private readonly family: CableFamily;
  private readonly budget: Budget;
  private sure = true;

  constructor(question: Question, steps: number) {
    this.question = question;
    this.budget = newBudget(steps);
    this.family = inletFamily(question.inlet.kind);
    this.together = smallestUnserved(question.inlet, question.around, (set) => this.serves(set), this.budget);
    this.set = asRequired(this.together);
  }

  explain(): Omit<OpenBecause, 'inletId'> {
    const { kit, rules } = this.question;
    const shortages: Shortage[] = kit.cables.some((cable) => this.hasPlug(cable)) ? [] : [{ code: 'plug-kind' }];
    const remedies: CableRemedy[] = [];
    if (this.may(this.set, this.withMoreSockets()))
      shortages.push({ code: 'sockets', have: socketsFor(kit, this.family).length });
    if (
      this.may(
        this.set,
        this.withMoreCables(() => true, this.set.length),
      )
    ) {
      shortages.push({ code: 'cables', have: this.cablesThere() });
      remedies.push(...this.cablesThatDo());
    }
    const extension = this.extensionThatDoes();
    if (extension !== null) {
      shortages.push({ code: 'reach', missingMillimetres: extension.millimetres });
      remedies.push(extension);
    }
    if (!rules.allowShared && this.may(this.set, kit, { ...rules, allowShared: true })) {
      shortages.push({ code: 'sharing', by: 'rule' });
      remedies.push({ code: 'allow-sharing' });
    }
    shortages.push(...this.limitsOfLoad(extension !== null));
    remedies.push(...this.heldBackThatDo(), ...this.pinsInTheWay());
    return {
      together: this.together.map(({ id }) => id),
      shortages,
      remedies: remedies.length === 0 ? [this.anotherSupply()] : remedies,
      proved: this.sure && this.budget.left > 0,
    };
  }

  /** Are these all served, with no cable overloaded beyond what the plan bears anyway? */
  private serves(
    set: readonly InletToServe[],
    kit: CableKit = this.question.kit,
    rules: PlanRules = this.question.rules,
  ): boolean {
    const own = newBudget(Math.max(0, Math.min(stepsAPlan, this.budget.left)));
    const given = own.left;
    const pins = rules.pins.filter((pin) => set.some((item) => item.id === pin.inletId));
    const plan = planCables(kit, asRequired(set), { ...rules, pins }, undefined, own);
    this.budget.left -= leastStepsAnInlet * set.length + given - own.left;
    if (!plan.proved) this.sure = false;
    return plan.open.length === 0 && plan.wrong.length === 0 && plan.score.overloaded <= this.question.overloaded;
  }

  /** As `serves`; with nothing left of the budget nothing more is found out. */
  private may(...asked: Parameters<Trial['serves']>): boolean {
    return this.budget.left > 0 && this.serves(...asked);
  }

  private hasPlug(cable: KitCable): boolean {
    return cable.plugs.some(({ kind }) => plugFits(kind, cable, this.question.inlet));
  }

  private cablesThere(): number {
    const fitting = this.question.kit.cables.filter((cable) => this.hasPlug(cable));
    return fitting.reduce((sum, { count }) => sum + count, 0);
  }

  private concerns(family: CableFamily): boolean {
    return this.together.some(({ kind }) => inletFamily(kind) === family);
  }

  private withMoreSockets(): CableKit {
    const { kit } = this.question;
    const more = socketsToSpare(kit, (family) => this.concerns(family), this.set.length);
    return { ...kit, sockets: [...kit.sockets, ...more] };
  }

  /** The kit with so many more of some cables; of one that goes into one socket only another would be of no use. */
  private withMoreCables(which: (cable: KitCable) => boolean, more: number): CableKit {
    const { kit } = this.question;
    return {
      ...kit,
      cables: kit.cables.map((cable) =>
        which(cable) && this.mayBeMore(cable) ? { ...cable, count: cable.count + more } : cable,
      ),
    };
  }

  private mayBeMore({ family, onlySocket }: KitCable): boolean {
    return this.concerns(family) && onlySocket === undefined;
  }

  /** The fewest more of one cable that would do. */
  private cablesThatDo(): CableRemedy[] {
    const candidates = this.question.kit.cables.filter((cable) => !cable.fixed && this.mayBeMore(cable));
    for (let count = 1; count <= this.set.length && this.budget.left > 0; count += 1) {
      const one = candidates.find((cable) =>
        this.may(
          this.set,
          this.withMoreCables((item) => item === cable, count),
        ),
      );
      if (one !== undefined) return [{ code: 'cable', kitCableId: one.id, count }];
    }
    return [];
  }

  /** The set as if cables to all of it, or to one of it, were longer. */
  private longer(millimetres: number, only?: string): readonly InletToServe[] {
    return this.set.map((item) =>
      only === undefined || item.id === only
        ? { ...item, reachMillimetres: item.reachMillimetres - millimetres }
        : item,
    );
  }

  /** The shortest extension of one way that would do, where length is what is short. */
  private extensionThatDoes(): (CableRemedy & { readonly code: 'extension' }) | null {
    const farthest = Math.max(...this.set.map(({ reachMillimetres }) => reachMillimetres));
    if (!this.may(this.longer(farthest))) return null;
    const lengths = this.set.flatMap((item) => {
      if (this.budget.left <= 0) return [];
      const millimetres = leastOf(item.reachMillimetres, (value) => this.may(this.longer(value, item.id)));
      return millimetres === null ? [] : [{ item, millimetres }];
    });
    const [least] = lengths.sort((a, b) => a.millimetres - b.millimetres);
    if (least === undefined) return null;
    return { code: 'extension', inletId: least.item.id, kind: least.item.kind, millimetres: least.millimetres };
  }

  /** Whether load, the ways between plugs or thin wire decide. */
  private limitsOfLoad(isShort: boolean): Shortage[] {
    const { set } = this;
    const shortages: Shortage[] = [];
    const nothing = { amps12: 0, amps5: 0, amps33: 0, startAmps12: 0, startAmps5: 0 };
    if (this.may(set.map((item) => ({ ...item, ...nothing })))) shortages.push(loadShortage(this.family, set.length));
    const nearest = Math.min(...set.map(({ reachMillimetres }) => reachMillimetres));
    const together = set.map((item) => ({ ...item, place: 'floor' as const, reachMillimetres: nearest }));
    if (set.length > 1 && this.may(together) && !isShort) shortages.push({ code: 'spacing' });
    const cools = set.some((item) => item.cools === true);
    if (cools && this.may(set.map((item) => ({ ...item, cools: false })))) shortages.push({ code: 'thin-wire' });
    return shortages;
  }

  /** What the shop has and keeps out of the plan, and would do. */
  private heldBackThatDo(): CableRemedy[] {
    const { kit, rules, heldBack } = this.question;
    const adapters = heldBack.adapters.filter((adapter) =>
      this.may(this.set, kit, { ...rules, adapters: [...rules.adapters, adapter] }),
    );
    const spares = heldBack.spares.filter((spare) => this.may(this.set, { ...kit, cables: [...kit.cables, spare] }));
    return [
      ...adapters.map(({ id }): CableRemedy => ({ code: 'adapter', adapterId: id })),
      ...spares.map(({ id }): CableRemedy => ({ code: 'spare', kitCableId: id })),
    ];
  }

  /** Plugs put by hand that would do elsewhere. */
  private pinsInTheWay(): CableRemedy[] {
    const { kit, rules } = this.question;
    return rules.pins
      .filter((pin) => this.may(this.set, kit, { ...rules, pins: rules.pins.filter((item) => item !== pin) }))
      .map(({ inletId }) => ({ code: 'move-pin', inletId }));
  }

  private anotherSupply(): CableRemedy {
    const sockets = this.set.filter(({ kind }) => inletFamily(kind) === this.family).length;
    return { code: 'other-supply', family: this.family, sockets };
  }
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
  const shared = isGraphics(family) && inlets > 1;
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
