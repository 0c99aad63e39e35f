import { boundToBe } from '../bound-to-be.ts';
import { inletFamily, plugServes, type PlugKind } from '../standards/index.ts';
import { adapterServes } from './adapters.ts';
import type { Adapter, CableKit, InletToServe, KitCable, Pin, Socket } from './kit.ts';
import { plugFits } from './own-plug.ts';
import type { PlacedPlug } from './plan-family.ts';
import type { PlanRules } from './plan.ts';
import { socketsNamed, socketsTake } from './supply-ends.ts';

/**
 * A pin that could not be kept, and why; the plan is made as if it were not there. `no-fit` keeps its plug: it is where
 * the technician put it, and the inlet is wrong.
 */
export interface PinRefusal {
  readonly inletId: string;
  readonly code:
    | 'lost'
    | 'plug-twice'
    | 'inlet-twice'
    | 'no-fit'
    | 'no-adapter'
    | 'socket-kind'
    | 'socket-twice'
    | 'two-sockets'
    | 'no-socket';
  readonly kitCableId: string;
  readonly plugKind: PlugKind | null;
  readonly socketLabel: string | null;
}

/** What stays where a hand put it. */
export interface Settled {
  readonly placed: readonly PlacedPlug[];
  readonly misplaced: readonly { readonly placed: PlacedPlug; readonly inlet: InletToServe }[];
  readonly refused: readonly PinRefusal[];
  /** Sockets that pinned pieces hold, by `kitCableId copy`. */
  readonly sockets: ReadonlyMap<string, readonly Socket[]>;
}

/** The same sockets, whichever end is in which. */
const sameSockets = (a: readonly Socket[], b: readonly Socket[]) =>
  a.length === b.length && a.every((socket) => b.includes(socket));

export const pieceKey = (kitCableId: string, copy: number) => `${kitCableId} ${copy}`;

/** Does an adapter or extension of one leg go between such a plug and this inlet, and carry its load? */
export function goesBetween(plug: PlugKind, adapter: Adapter, inlet: InletToServe): boolean {
  return adapter.legs === 1 && plugServes(plug, adapter.takes) && adapterServes(adapter, inlet);
}

/** Adapters that no pin has taken. */
export function adaptersLeft(adapters: readonly Adapter[], { placed }: Settled): readonly Adapter[] {
  if (placed.every((item) => item.adapter === null)) return adapters;
  return adapters
    .map((adapter) => ({ ...adapter, count: adapter.count - placed.filter((item) => item.adapter === adapter).length }))
    .filter(({ count }) => count > 0);
}

/** Which pins can be kept, one by one in their order. */
export function settlePins(kit: CableKit, inlets: readonly InletToServe[], { pins, adapters }: PlanRules): Settled {
  const refused: PinRefusal[] = [];
  const kept: { pin: Pin; cable: KitCable; inlet: InletToServe; adapter: Adapter | null; fits: boolean }[] = [];
  const sockets = new Map<string, readonly Socket[]>();
  for (const pin of pins) {
    const cable = kit.cables.find((item) => item.id === pin.kitCableId);
    const inlet = inlets.find((item) => item.id === pin.inletId);
    const plugKind = cable?.plugs[pin.plugIndex]?.kind ?? null;
    const refuse = (code: PinRefusal['code']) =>
      refused.push({ inletId: pin.inletId, code, kitCableId: pin.kitCableId, plugKind, socketLabel: pin.socketLabel });
    if (cable === undefined || inlet === undefined || plugKind === null || pin.copy >= cable.count) {
      refuse('lost');
      continue;
    }
    if (kept.some((item) => item.inlet === inlet)) {
      refuse('inlet-twice');
      continue;
    }
    if (
      kept.some((item) => item.cable === cable && item.pin.copy === pin.copy && item.pin.plugIndex === pin.plugIndex)
    ) {
      refuse('plug-twice');
      continue;
    }
    const adapter = pin.adapterId === undefined ? null : adapters.find((item) => item.id === pin.adapterId);
    const spent = kept.filter((item) => item.adapter !== null && item.adapter === adapter).length;
    if (
      adapter === undefined ||
      (adapter !== null && !(spent < adapter.count && goesBetween(plugKind, adapter, inlet)))
    ) {
      refuse('no-adapter');
      continue;
    }
    const { onlySocket } = cable;
    if (onlySocket !== undefined && pin.socketLabel !== null && pin.socketLabel !== onlySocket) refuse('socket-kind');
    const socketLabel = onlySocket ?? pin.socketLabel;
    if (socketLabel !== null && !cable.fixed) {
      const named = socketsNamed(kit, socketLabel);
      const key = pieceKey(cable.id, pin.copy);
      const held = sockets.get(key);
      if (named === null || !socketsTake(named, cable)) refuse('socket-kind');
      else if (held !== undefined && !sameSockets(held, named)) refuse('two-sockets');
      else if (held === undefined && [...sockets.values()].flat().some((socket) => named.includes(socket)))
        refuse('socket-twice');
      else if (held === undefined) sockets.set(key, named);
      // One that goes into one socket only goes nowhere without it.
      if (onlySocket !== undefined && !sockets.has(key)) continue;
    }
    const fits = (adapter !== null || plugFits(plugKind, cable, inlet)) && inletFamily(inlet.kind) === cable.family;
    if (!fits) refuse('no-fit');
    kept.push({ pin, cable, inlet, adapter, fits });
  }
  const placed = kept.map(({ pin, cable, inlet, adapter }): PlacedPlug => ({
    cable,
    copy: pin.copy,
    plugIndex: pin.plugIndex,
    inlet,
    adapter,
    holdsSocket: sockets.has(pieceKey(cable.id, pin.copy)),
  }));
  return {
    placed,
    refused,
    sockets,
    misplaced: kept.flatMap((item, index) =>
      item.fits ? [] : [{ placed: boundToBe(placed[index], 'placed plug'), inlet: item.inlet }],
    ),
  };
}
