import { inletFamily, limits, plugServes, type PlugKind } from '../standards/index.ts';
import { boundToBe } from '../bound-to-be.ts';
import { groupBy } from '../group-by.ts';
import type { Adapter, CableKit, InletToServe, KitCable } from './kit.ts';
import type { Assignment, PlanRules } from './plan.ts';
import { adapterCarries } from './adapters.ts';
import { plugFits } from './own-plug.ts';
import { cableLimits, carriedBy, isGraphics, perVoltage, rounding, type Carried } from './carried.ts';
import { strongEnough } from './plan-family.ts';
import { betweenMillimetres } from './routing.ts';
import { socketsNamed, socketsTake } from './supply-ends.ts';

/** What an arrangement of cables breaks. Figures in the unit of their name. */
export type PlanBreach =
  | { readonly code: 'no-fit'; readonly inletId: string; readonly plugKind: PlugKind }
  | { readonly code: 'too-short'; readonly inletId: string; readonly missingMillimetres: number }
  | {
      readonly code: 'spacing';
      readonly inletId: string;
      readonly otherInletId: string;
      readonly hasMillimetres: number;
      readonly needsMillimetres: number;
    }
  | { readonly code: 'weak-chain'; readonly inletId: string; readonly gauge: number }
  | { readonly code: 'shared-not-allowed'; readonly cableCode: string }
  | {
      readonly code: 'shared-overload';
      readonly cableCode: string;
      readonly watts: number;
      readonly limitWatts: number;
    }
  | {
      readonly code: 'chain-overload';
      readonly cableCode: string;
      readonly rail: '+12' | '+5' | '+3.3';
      readonly amps: number;
      readonly limitAmps: number;
    }
  /** A cable that is no chain, beyond its wires, contacts or code. */
  | {
      readonly code: 'cable-overload';
      readonly cableCode: string;
      readonly rail: '+12' | '+5' | '+3.3';
      readonly amps: number;
      readonly limitAmps: number;
    }
  | { readonly code: 'adapter-overload'; readonly inletId: string; readonly adapterId: string }
  | { readonly code: 'plug-twice'; readonly cableCode: string; readonly plugIndex: number }
  | { readonly code: 'socket-twice'; readonly socketLabel: string }
  | { readonly code: 'socket-kind'; readonly socketLabel: string; readonly cableCode: string };

const railOf = { amps12: '+12', amps5: '+5', amps33: '+3.3' } as const;

/** An assignment with what its names stand for. */
interface Hung {
  readonly item: Assignment;
  readonly inlet: InletToServe;
  readonly adapter: Adapter | null;
  readonly cable: KitCable;
}

const legsOf = ({ adapter }: Hung): number => adapter?.legs ?? 1;

/** What a plug of an arrangement breaks by itself. */
function breachesAlone({ item, inlet, adapter, cable }: Hung): PlanBreach[] {
  const breaches: PlanBreach[] = [];
  const isFit =
    adapter === null
      ? plugFits(item.plugKind, cable, inlet)
      : plugServes(item.plugKind, adapter.takes) && plugFits(adapter.gives, adapter, inlet);
  if (!isFit) breaches.push({ code: 'no-fit', inletId: inlet.id, plugKind: item.plugKind });
  if (adapter !== null && !adapterCarries(adapter, inlet))
    breaches.push({ code: 'adapter-overload', inletId: inlet.id, adapterId: adapter.id });
  if (item.slackMillimetres < 0)
    breaches.push({ code: 'too-short', inletId: inlet.id, missingMillimetres: -item.slackMillimetres });
  if (!strongEnough(cable, inlet)) breaches.push({ code: 'weak-chain', inletId: inlet.id, gauge: cable.gauge });
  return breaches;
}

/** The halves of one that comes apart may go into two 4-pin inlets. */
const isHalf = ({ item, inlet }: Hung): boolean => item.plugKind === 'cpu-4+4' && inlet.kind === 'cpu-4';

/** Plugs of one cable that are in two places; each that comes to a plug in use is told. */
function plugsTwice(onCable: readonly Hung[]): PlanBreach[] {
  return onCable.flatMap((one, index): PlanBreach[] => {
    const { cableCode, plugIndex } = one.item;
    const before = onCable.slice(0, index).filter((other) => other.item.plugIndex === plugIndex);
    const halves = before.length === 1 && [one, ...before].every(isHalf);
    return before.length === 0 || halves ? [] : [{ code: 'plug-twice', cableCode, plugIndex }];
  });
}

/** What a cable breaks by the sockets it is in; notes those as used. */
function socketBreaches(kit: CableKit, { item, cable }: Hung, used: Set<string>): PlanBreach[] {
  const { socketLabel, cableCode } = item;
  if (socketLabel === null) return [];
  const breaches: PlanBreach[] = [];
  const sockets = socketsNamed(kit, socketLabel);
  if (sockets === null || !socketsTake(sockets, cable)) breaches.push({ code: 'socket-kind', socketLabel, cableCode });
  for (const { label } of sockets ?? [{ label: socketLabel }]) {
    if (used.has(label)) breaches.push({ code: 'socket-twice', socketLabel: label });
    used.add(label);
  }
  return breaches;
}

/** What all plugs of a cable carry together; an adapter of several legs brings its share to each. */
const carriedOn = (onCable: readonly Hung[]): Carried =>
  carriedBy(
    onCable.map((one) => ({
      ...one.inlet,
      amps12: one.inlet.amps12 / legsOf(one),
      amps5: one.inlet.amps5 / legsOf(one),
      amps33: one.inlet.amps33 / legsOf(one),
    })),
  );

function overloads({ item, cable }: Hung, carried: Carried): PlanBreach[] {
  const most = cableLimits(cable);
  return perVoltage
    .filter((key) => carried[key] > most[key] + rounding)
    .map((key) => ({
      code: cable.family === 'drive' ? 'chain-overload' : 'cable-overload',
      cableCode: item.cableCode,
      rail: railOf[key],
      amps: carried[key],
      limitAmps: most[key],
    }));
}

/** What several plugs on one cable break: main cables share nothing, graphics cables by the rule and their load. */
function sharingBreaches(
  onCable: readonly Hung[],
  { item, cable }: Hung,
  watts: number,
  rules: PlanRules,
): PlanBreach[] {
  const { cableCode } = item;
  if (cable.family === 'main') return [{ code: 'shared-not-allowed', cableCode }];
  if (!isGraphics(cable.family)) return [];
  if (!rules.allowShared || onCable.some((one) => legsOf(one) > 1)) return [{ code: 'shared-not-allowed', cableCode }];
  const limitWatts = limits.sharedCardCableWatts;
  return watts > limitWatts + rounding ? [{ code: 'shared-overload', cableCode, watts, limitWatts }] : [];
}

const wayTo = ({ item, cable, adapter }: Hung): { readonly plug: number; readonly adds: number } => ({
  plug: boundToBe(cable.plugs[item.plugIndex], `plug ${item.plugIndex} of ${cable.id}`).millimetres,
  adds: adapter?.addsMillimetres ?? 0,
});

/** Pairs of plugs that are closer together on the cable than their inlets are in the case. */
function spacingBreaches(onCable: readonly Hung[]): PlanBreach[] {
  return onCable.flatMap((one, index) =>
    onCable.slice(0, index).flatMap((other): PlanBreach[] => {
      const [here, there] = [wayTo(one), wayTo(other)];
      const hasMillimetres = Math.abs(here.plug - there.plug) + here.adds + there.adds;
      const needsMillimetres = betweenMillimetres(one.inlet, other.inlet);
      if (hasMillimetres >= needsMillimetres) return [];
      const between = { inletId: one.inlet.id, otherInletId: other.inlet.id };
      return [{ code: 'spacing', ...between, hasMillimetres, needsMillimetres }];
    }),
  );
}

/**
 * Checks an arrangement against every rule, without regard to how it came about: a plan, a plan moved by hand,
 * anything. Legs of adapters are assignments of the same inlet.
 * @throws RangeError where an assignment names an inlet, an adapter or a cable that is not given
 */
export function checkPlan(
  kit: CableKit,
  inlets: readonly InletToServe[],
  assignments: readonly Assignment[],
  rules: PlanRules,
): PlanBreach[] {
  const hung = assignments.map((item): Hung => {
    const { inletId, adapterId, kitCableId } = item;
    const adapter = adapterId === null ? null : rules.adapters.find(({ id }) => id === adapterId);
    return {
      item,
      inlet: boundToBe(
        inlets.find(({ id }) => id === inletId),
        `inlet ${inletId}`,
      ),
      adapter: adapterId === null ? null : boundToBe(adapter, `adapter ${adapterId}`),
      cable: boundToBe(
        kit.cables.find(({ id }) => id === kitCableId),
        `cable ${kitCableId}`,
      ),
    };
  });
  const cables = [...groupBy(hung, ({ item }) => item.cableCode).values()];
  const used = new Set<string>();
  const ofCables = cables.flatMap((onCable): PlanBreach[] => {
    const first = boundToBe(onCable[0], 'plug on a cable');
    const carried = carriedOn(onCable);
    const alone = [...socketBreaches(kit, first, used), ...overloads(first, carried)];
    if (onCable.length < 2) return alone;
    return [...alone, ...sharingBreaches(onCable, first, carried.amps12 * 12, rules), ...spacingBreaches(onCable)];
  });
  return [...hung.flatMap(breachesAlone), ...cables.flatMap(plugsTwice), ...ofCables];
}

/** Is this breach about this inlet, or about the cable it hangs on? */
export function breachConcerns(breach: PlanBreach, inletId: string, cableCode: string | null): boolean {
  switch (breach.code) {
    case 'no-fit':
    case 'too-short':
    case 'weak-chain':
    case 'adapter-overload':
      return breach.inletId === inletId;
    case 'spacing':
      return breach.inletId === inletId || breach.otherInletId === inletId;
    case 'shared-not-allowed':
    case 'shared-overload':
    case 'chain-overload':
    case 'cable-overload':
    case 'plug-twice':
    case 'socket-kind':
      return breach.cableCode === cableCode;
    case 'socket-twice':
      return false;
  }
}

/** The purposes an arrangement mixes up: a processor plug in a card inlet carries +12 where ground belongs. */
export function carriesOpposite(plugKind: Assignment['plugKind'], inletKind: InletToServe['kind']): boolean {
  const purpose = inletFamily(inletKind);
  return (plugKind.startsWith('cpu-') && purpose === 'card') || (plugKind.startsWith('card-') && purpose === 'cpu');
}
