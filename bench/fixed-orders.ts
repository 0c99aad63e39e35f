import { type Model, type Observation, repairCheckId } from '@fairwatt/core';
import type { Move, Order } from '@fairwatt/core/simulate';

/** One step of a fixed order: a check with the cures that its outcomes lead to at once, or a cure. */
export type FixedStep =
  | {
      readonly check: string;
      readonly then?: Readonly<Record<string, string>>;
      readonly unless?: (seen: ReadonlyMap<string, string>) => boolean;
    }
  | { readonly cure: string };

const shows = (seen: ReadonlyMap<string, string>) => !['nothing', undefined].includes(seen.get('told-button'));
const stands = (seen: ReadonlyMap<string, string>) =>
  !['nothing', 'lights-only', 'twitch'].includes(seen.get('told-button') ?? 'nothing');
const mains: FixedStep[] = [
  { check: 'look-switch', unless: shows },
  { check: 'do-outlet', unless: shows },
  { check: 'do-lead', unless: shows },
];
const offLoad: FixedStep = { check: 'm-offload', then: { nothing: 'replace-supply', twitches: 'replace-supply' } };
const seating: FixedStep[] = [
  { check: 'do-main' },
  { check: 'do-cpu-power' },
  { check: 'do-card-power' },
  { check: 'do-card-seat' },
];
const button: FixedStep = { check: 'do-bridge', then: { starts: 'button' }, unless: stands };
const swap: FixedStep = { check: 'd-swap', then: { cured: 'replace-supply', better: 'larger-supply' } };
const tester: FixedStep = {
  check: 'm-tester',
  then: {
    'one-out': 'replace-supply',
    'several-out': 'replace-supply',
    'pg-out': 'replace-supply',
    nothing: 'replace-supply',
  },
};

/** Three orders that technicians follow, each without the steps that make no sense on a machine that shows life. */
export const fixedOrders: Readonly<Record<string, readonly FixedStep[]>> = {
  'mains, off-load start, seating, button, coin cell, board': [
    ...mains,
    offLoad,
    ...seating,
    button,
    { check: 'do-coin' },
    { cure: 'board' },
  ],
  'look, tester, swap, memory, board, processor': [
    { check: 'look-switch' },
    { check: 'look-plugs' },
    { check: 'look-16pin', then: { heat: 'sixteen-pin', 'part-home': 'sixteen-pin' } },
    tester,
    swap,
    { check: 'do-memory' },
    { cure: 'board' },
    { cure: 'cpu' },
  ],
  'lights, off-load start, plugs one by one, swap': [
    { check: 'look-standby-light' },
    { check: 'look-diag', then: { memory: 'memory' } },
    offLoad,
    ...seating,
    swap,
  ],
};

/**
 * A fixed order as a policy: its steps one after the other; where the list is used up, the cures left, those that are
 * needed most often first, so that nobody is charged for merely having a short list.
 */
export function fixedOrder(world: Model, steps: readonly FixedStep[]): Order {
  const cures = [...new Set(world.faults.map((fault) => fault.cure.id))];
  const often = (cure: string) =>
    world.faults.reduce(
      (sum, fault, index) => (fault.cure.id === cure ? sum + Math.exp(world.logPrior[index]!) : sum),
      0,
    );
  const byFrequency = [...cures].sort((a, b) => often(b) - often(a));
  return (list: readonly Observation[]): Move => {
    const seen = new Map(list.map((observation) => [observation.checkId, observation.outcomeId]));
    const tried = (cure: string) => seen.has(repairCheckId(cure));
    for (const step of steps) {
      if ('cure' in step) {
        if (!tried(step.cure)) return { do: 'cure', cureId: step.cure };
        continue;
      }
      const outcome = seen.get(step.check);
      if (outcome === undefined) {
        if (step.unless?.(seen) === true) continue;
        return { do: 'check', checkId: step.check };
      }
      const cure = step.then?.[outcome];
      if (cure !== undefined && !tried(cure)) return { do: 'cure', cureId: cure };
    }
    const next = byFrequency.find((cure) => !tried(cure));
    return next === undefined ? { do: 'give-up' } : { do: 'cure', cureId: next };
  };
}
