import { inletFamily, limits, plugServes, type PlugKind } from '../standards/index.ts';
import type { Adapter, CableKit, InletToServe } from './kit.ts';
import type { Assignment, PlanRules } from './plan.ts';
import { adapterCarries } from './adapters.ts';
import { plugFits } from './own-plug.ts';
import { cableLimits, carriedBy, perVoltage, rounding } from './carried.ts';
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

/**
 * Checks an arrangement against every rule, without regard to how it came about: a plan, a plan moved by hand,
 * anything. Legs of adapters are assignments of the same inlet.
 */
export function checkPlan(
  kit: CableKit,
  inlets: readonly InletToServe[],
  assignments: readonly Assignment[],
  rules: PlanRules,
): PlanBreach[] {
  const breaches: PlanBreach[] = [];
  const inletOf = new Map(inlets.map((inlet) => [inlet.id, inlet]));
  const adapterOf = new Map(rules.adapters.map((adapter): [string, Adapter] => [adapter.id, adapter]));
  const perCable = new Map<string, Assignment[]>();
  for (const item of assignments) {
    const inlet = inletOf.get(item.inletId)!;
    const adapter = item.adapterId === null ? null : adapterOf.get(item.adapterId)!;
    const piece = kit.cables.find((one) => one.id === item.kitCableId)!;
    if (
      !(adapter === null
        ? plugFits(item.plugKind, piece, inlet)
        : plugServes(item.plugKind, adapter.takes) && plugFits(adapter.gives, adapter, inlet))
    )
      breaches.push({ code: 'no-fit', inletId: inlet.id, plugKind: item.plugKind });
    if (adapter !== null && !adapterCarries(adapter, inlet))
      breaches.push({ code: 'adapter-overload', inletId: inlet.id, adapterId: adapter.id });
    if (item.slackMillimetres < 0)
      breaches.push({ code: 'too-short', inletId: inlet.id, missingMillimetres: -item.slackMillimetres });
    if (!strongEnough(piece, inlet)) breaches.push({ code: 'weak-chain', inletId: inlet.id, gauge: piece.gauge });
    const there = perCable.get(item.cableCode) ?? [];
    const onPlug = there.filter((other) => other.plugIndex === item.plugIndex);
    // The halves of one that comes apart may go into two 4-pin inlets.
    const half = (one: Assignment) => one.plugKind === 'cpu-4+4' && inletOf.get(one.inletId)!.kind === 'cpu-4';
    if (onPlug.length > 1 || (onPlug.length === 1 && !(half(item) && half(onPlug[0]!))))
      breaches.push({ code: 'plug-twice', cableCode: item.cableCode, plugIndex: item.plugIndex });
    perCable.set(item.cableCode, [...there, item]);
  }
  const socketsUsed = new Set<string>();
  for (const [cableCode, items] of perCable) {
    const cable = kit.cables.find((one) => one.id === items[0]!.kitCableId)!;
    const { socketLabel } = items[0]!;
    if (socketLabel !== null) {
      const sockets = socketsNamed(kit, socketLabel);
      if (sockets === null || !socketsTake(sockets, cable))
        breaches.push({ code: 'socket-kind', socketLabel, cableCode });
      for (const { label } of sockets ?? [{ label: socketLabel }]) {
        if (socketsUsed.has(label)) breaches.push({ code: 'socket-twice', socketLabel: label });
        socketsUsed.add(label);
      }
    }
    const carried = carriedBy(
      items.map((item) => {
        const inlet = inletOf.get(item.inletId)!;
        const legs = item.adapterId === null ? 1 : adapterOf.get(item.adapterId)!.legs;
        return {
          ...inlet,
          amps12: inlet.amps12 / legs,
          amps5: inlet.amps5 / legs,
          amps33: inlet.amps33 / legs,
        };
      }),
    );
    const most = cableLimits(cable);
    for (const key of perVoltage)
      if (carried[key] > most[key] + rounding)
        breaches.push({
          code: cable.family === 'drive' ? 'chain-overload' : 'cable-overload',
          cableCode,
          rail: railOf[key],
          amps: carried[key],
          limitAmps: most[key],
        });
    if (items.length < 2) continue;
    if (cable.family === 'card' || cable.family === 'card-16') {
      const watts = carried.amps12 * 12;
      if (
        !rules.allowShared ||
        items.some((item) => item.adapterId !== null && adapterOf.get(item.adapterId)!.legs > 1)
      )
        breaches.push({ code: 'shared-not-allowed', cableCode });
      else if (watts > limits.sharedCardCableWatts + rounding)
        breaches.push({ code: 'shared-overload', cableCode, watts, limitWatts: limits.sharedCardCableWatts });
    }
    if (cable.family === 'main') breaches.push({ code: 'shared-not-allowed', cableCode });
    items.forEach((item, index) =>
      items.slice(0, index).forEach((other) => {
        const adds = [item, other].reduce(
          (sum, one) => sum + (one.adapterId === null ? 0 : adapterOf.get(one.adapterId)!.addsMillimetres),
          0,
        );
        const hasMillimetres =
          Math.abs(cable.plugs[item.plugIndex]!.millimetres - cable.plugs[other.plugIndex]!.millimetres) + adds;
        const needsMillimetres = betweenMillimetres(inletOf.get(item.inletId)!, inletOf.get(other.inletId)!);
        if (hasMillimetres < needsMillimetres)
          breaches.push({
            code: 'spacing',
            inletId: item.inletId,
            otherInletId: other.inletId,
            hasMillimetres,
            needsMillimetres,
          });
      }),
    );
  }
  return breaches;
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
