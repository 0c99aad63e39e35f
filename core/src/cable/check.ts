import { inletFamily, limits, plugServes, socketTakes, type PlugKind } from '../standards/index.ts';
import type { Adapter, CableKit, InletToServe } from './kit.ts';
import type { Assignment, PlanRules } from './plan.ts';
import { chainAmps, rounding, strongEnough } from './plan-family.ts';
import { betweenMillimetres } from './routing.ts';

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
  | { readonly code: 'plug-twice'; readonly cableCode: string; readonly plugIndex: number }
  | { readonly code: 'socket-twice'; readonly socketLabel: string }
  | { readonly code: 'socket-kind'; readonly socketLabel: string; readonly cableCode: string };

/**
 * Checks an arrangement against every rule, without regard to how it came about: a plan, a plan moved by hand, anything.
 * Legs of adapters are assignments of the same inlet.
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
    if (
      !(adapter === null
        ? plugServes(item.plugKind, inlet.kind)
        : plugServes(item.plugKind, adapter.takes) && plugServes(adapter.gives, inlet.kind))
    )
      breaches.push({ code: 'no-fit', inletId: inlet.id, plugKind: item.plugKind });
    if (item.slackMillimetres < 0)
      breaches.push({ code: 'too-short', inletId: inlet.id, missingMillimetres: -item.slackMillimetres });
    const piece = kit.cables.find((one) => one.id === item.kitCableId)!;
    if (!strongEnough(piece, inlet)) breaches.push({ code: 'weak-chain', inletId: inlet.id, gauge: piece.gauge });
    const there = perCable.get(item.cableCode) ?? [];
    if (there.some((other) => other.plugIndex === item.plugIndex))
      breaches.push({ code: 'plug-twice', cableCode: item.cableCode, plugIndex: item.plugIndex });
    perCable.set(item.cableCode, [...there, item]);
  }
  const socketsUsed = new Set<string>();
  for (const [cableCode, items] of perCable) {
    const cable = kit.cables.find((one) => one.id === items[0]!.kitCableId)!;
    const { socketLabel } = items[0]!;
    if (socketLabel !== null) {
      const socket = kit.sockets.find((one) => one.label === socketLabel);
      if (socket === undefined || !socketTakes(socket.kind, cable.family))
        breaches.push({ code: 'socket-kind', socketLabel, cableCode });
      if (socketsUsed.has(socketLabel)) breaches.push({ code: 'socket-twice', socketLabel });
      socketsUsed.add(socketLabel);
    }
    if (items.length < 2) continue;
    const amps = (key: 'amps12' | 'amps5' | 'amps33') =>
      items.reduce((sum, item) => {
        const inlet = inletOf.get(item.inletId)!;
        const legs = item.adapterId === null ? 1 : adapterOf.get(item.adapterId)!.legs;
        return sum + inlet[key] / legs;
      }, 0);
    if (cable.family === 'card' || cable.family === 'card-16') {
      const watts = amps('amps12') * 12;
      if (
        !rules.allowShared ||
        items.some((item) => item.adapterId !== null && adapterOf.get(item.adapterId)!.legs > 1)
      )
        breaches.push({ code: 'shared-not-allowed', cableCode });
      else if (watts > limits.sharedCardCableWatts + rounding)
        breaches.push({ code: 'shared-overload', cableCode, watts, limitWatts: limits.sharedCardCableWatts });
    }
    if (cable.family === 'main') breaches.push({ code: 'shared-not-allowed', cableCode });
    if (cable.family === 'drive')
      for (const [rail, key] of [
        ['+12', 'amps12'],
        ['+5', 'amps5'],
        ['+3.3', 'amps33'],
      ] as const) {
        const sum = amps(key);
        if (sum > chainAmps(cable.gauge) + rounding)
          breaches.push({ code: 'chain-overload', cableCode, rail, amps: sum, limitAmps: chainAmps(cable.gauge) });
      }
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
      return breach.inletId === inletId;
    case 'spacing':
      return breach.inletId === inletId || breach.otherInletId === inletId;
    case 'shared-not-allowed':
    case 'shared-overload':
    case 'chain-overload':
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
