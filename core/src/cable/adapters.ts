import { inletFamily, limits, plugServes, type InletKind, type PlugKind } from '../standards/index.ts';
import { carriedBy, perVoltage, rounding } from './carried.ts';
import type { Adapter, InletToServe } from './kit.ts';
import { plugFits } from './own-plug.ts';

/** Why an adapter is never planned with. */
export type AdapterRefusal =
  'crosses-purposes' | 'larger-than-source' | 'moulded' | 'too-few-legs' | 'no-such-use' | 'unnamed';

type Use = Pick<Adapter, 'takes' | 'gives' | 'ownPlug' | 'legs' | 'moulded' | 'watts'>;

/** The inlets that a plug fills, the largest first. */
const filledBy = (plug: PlugKind) =>
  (
    [
      'main-24',
      'main-20',
      'aux-6',
      'main-own',
      'cpu-8',
      'cpu-4',
      'card-16',
      'card-8',
      'card-6',
      'peripheral-4',
      'sata',
      'small-drive-4',
    ] as const satisfies readonly InletKind[]
  ).filter((kind) => plugServes(plug, kind));

/** Which of two inlets of one purpose carries more, by its kind: what is larger is never made of what is smaller. */
const size: Partial<Record<InletKind, number>> = {
  'main-20': 20,
  'aux-6': 6,
  'main-24': 24,
  // Nobody knows how much a maker's own carries: it is made of a whole main plug, and of nothing less.
  'main-own': 24,
  'cpu-4': limits.processorInletWatts['cpu-4'],
  'cpu-8': limits.processorInletWatts['cpu-8'],
  'card-6': limits.cardInletWatts['card-6'],
  'card-8': limits.cardInletWatts['card-8'],
  'card-16': limits.cardInletWatts['card-16'],
  // A small drive plug carries less than half of what the other two do, which carry nearly the same.
  'small-drive-4': limits.smallDrivePlugAmps,
  sata: limits.sataPlugAmps,
  'peripheral-4': limits.sataPlugAmps,
};

/**
 * May this adapter be used at all, and where? Never across purposes, but for a 16-pin plug made of separate 8-pin
 * cables; never towards a larger inlet than its source; never a moulded one from a peripheral to a flat drive plug,
 * which burn. A maker's own main plug is made of a 24-pin one, and only by name.
 */
export function adapterRefusal(adapter: Use): AdapterRefusal | null {
  const to = filledBy(adapter.gives)[0];
  if (to === undefined) return 'no-such-use';
  const purpose = inletFamily(to);
  const from = inletFamily(adapter.takes);
  if (from === 'card' && purpose === 'card-16') {
    const sources = adapter.legs * limits.cardInletWatts['card-8'];
    const strong =
      adapter.takes === 'card-8' && adapter.legs >= 2 && (adapter.watts === null || adapter.watts <= sources);
    return strong ? null : 'too-few-legs';
  }
  if (from !== purpose) return 'crosses-purposes';
  if ((adapter.gives === 'main-own') !== (adapter.ownPlug !== undefined)) return 'unnamed';
  if (adapter.legs !== 1) return 'no-such-use';
  if ((size[to] ?? 0) > (size[adapter.takes] ?? 0)) return 'larger-than-source';
  if (adapter.moulded && adapter.takes === 'peripheral-4' && adapter.gives === 'sata') return 'moulded';
  return null;
}

/** Amps per voltage that the plug on which an adapter hangs may give it. */
function sourceAmps(takes: InletKind): number {
  switch (takes) {
    case 'cpu-8':
    case 'cpu-4':
      return limits.processorInletWatts[takes] / 12;
    case 'card-16':
    case 'card-8':
    case 'card-6':
      return limits.cardInletWatts[takes] / 12;
    case 'sata':
      return limits.sataPlugAmps;
    case 'peripheral-4':
      return limits.peripheralPlugAmps;
    case 'small-drive-4':
      return limits.smallDrivePlugAmps;
    case 'main-24':
    case 'main-20':
    case 'aux-6':
    case 'main-own':
      return Infinity;
  }
}

/** Does an adapter carry this inlet's load, by its own watts and by what its legs may give? */
export function adapterCarries(adapter: Pick<Adapter, 'takes' | 'legs' | 'watts'>, inlet: InletToServe): boolean {
  const carried = carriedBy([inlet]);
  const watts = carried.amps12 * 12 + carried.amps5 * 5 + carried.amps33 * 3.3;
  const most = sourceAmps(adapter.takes) * adapter.legs;
  return watts <= (adapter.watts ?? Infinity) + rounding && perVoltage.every((key) => carried[key] <= most + rounding);
}

/** Does this inlet take this adapter's plug, and does the adapter carry what it draws? */
export function adapterServes(adapter: Adapter, inlet: InletToServe): boolean {
  return plugFits(adapter.gives, adapter, inlet) && adapterCarries(adapter, inlet);
}
